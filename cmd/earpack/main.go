// Command earpack makes the browser's ear smaller and faster than the compiler leaves it:
//
//	go run ./cmd/earpack built.wasm packed.wasm
//
// Its code jumps where it means to, and takes two thirds of the time (docs/adr/0020). Its data
// comes in some 70000 pieces, around every short run of zeros; in one piece it is compressed
// better, and opened sooner. A tenth of the module only the trace of a panic reads, which nobody
// does in a browser: what was asked is asked of the server's copy of the core for that. And it
// says of fields what they are, for the API's page.
package main

import (
	"encoding/binary"
	"fmt"
	"os"
)

func main() {
	if len(os.Args) != 3 {
		fmt.Fprintln(os.Stderr, "usage: earpack built.wasm packed.wasm")
		os.Exit(2)
	}
	if err := run(os.Args[1], os.Args[2]); err != nil {
		fmt.Fprintln(os.Stderr, "earpack:", err)
		os.Exit(1)
	}
}

func run(from, to string) error {
	built, err := os.ReadFile(from)
	if err != nil {
		return err
	}
	packed, err := pack(built)
	if err != nil {
		return fmt.Errorf("%s: %w", from, err)
	}
	return os.WriteFile(to, packed, 0o644)
}

// pack returns a module that does the same, with the data that it reads.
func pack(module []byte) ([]byte, error) {
	sections, err := sectionsOf(module)
	if err != nil {
		return nil, err
	}
	out := append([]byte(nil), module[:preamble]...)
	for _, s := range sections {
		switch s.id {
		case codeSection:
			code, err := straightened(s.content)
			if err != nil {
				return nil, err
			}
			out = append(binary.AppendUvarint(append(out, codeSection), uint64(len(code))), code...)
		case dataSection:
			memory, err := memoryOf(s.content)
			if err != nil {
				return nil, err
			}
			if err := memory.forgetTraces(); err != nil {
				return nil, err
			}
			memory.forgetDocs()
			out = append(out, memory.section()...)
		default:
			out = append(out, s.whole...)
		}
	}
	return out, nil
}
