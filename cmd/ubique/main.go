// Command ubique tells before an application is hosted whether it will come
// up, be reached and behave, and which line says so.
package main

import (
	"os"

	"ubique/cli"
)

func main() { os.Exit(cli.Main(os.Args[1:], os.Stdin, os.Stdout, os.Stderr)) }
