package main

import (
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strings"
)

// explained makes every connection tell how it answers each question: Debian's
// PostgreSQL brings auto_explain along.
func explained(dsn string) string {
	return dsn + "&session_preload_libraries=auto_explain&auto_explain.log_min_duration=0&auto_explain.log_analyze=on" +
		"&auto_explain.log_buffers=on&auto_explain.log_timing=off"
}

var entry = regexp.MustCompile(`(?s)LOG:  duration: ([0-9.]+) ms  plan:\n\tQuery Text: (.*?)\n(?:[0-9]{4}-|\z)`)

// plans prints how the database answered what a page asked, from its log: each
// question once, with the rows and buffers it took.
func plans(folder, page string, from int64) error {
	log, err := os.ReadFile(filepath.Join(folder, "log"))
	if err != nil {
		return err
	}
	fmt.Printf("## %s\n\n", page)
	for _, m := range entry.FindAllStringSubmatch(string(log[from:]), -1) {
		fmt.Printf("%s ms\n```\n%s\n```\n\n", m[1], strings.ReplaceAll(m[2], "\n\t", "\n"))
	}
	return nil
}
