// Command table writes docs/servers.md from the table of servers. It is run by
// go generate in core/fact.
package main

import (
	"log"
	"os"
	"path/filepath"

	"ubique/core/fact"
)

func main() {
	log.SetFlags(0)
	if err := os.WriteFile(filepath.Join("..", "..", "docs", "servers.md"), []byte(fact.ServersPage()), 0o644); err != nil {
		log.Fatal(err)
	}
}
