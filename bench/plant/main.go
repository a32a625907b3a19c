// Command plant writes a tree to measure Ubique on: plant DIR COMPONENTS FILES.
package main

import (
	"fmt"
	"os"
	"strconv"

	"ubique/bench"
)

func main() {
	if len(os.Args) != 4 {
		fmt.Fprintln(os.Stderr, "plant DIR COMPONENTS FILES")
		os.Exit(2)
	}
	n, err1 := strconv.Atoi(os.Args[2])
	files, err2 := strconv.Atoi(os.Args[3])
	if err1 != nil || err2 != nil {
		fmt.Fprintln(os.Stderr, "plant: COMPONENTS and FILES are numbers")
		os.Exit(2)
	}
	if err := bench.Write(os.Args[1], n, files); err != nil {
		fmt.Fprintln(os.Stderr, "plant:", err)
		os.Exit(1)
	}
}
