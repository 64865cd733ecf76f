package main

import (
	"encoding/json"

	"github.com/spf13/cobra"

	"earlychorus/server/api"
)

// openAPICommand prints the document that server/api/openapi.json must equal;
// the web's client is generated from it.
func openAPICommand() *cobra.Command {
	return &cobra.Command{
		Use:    "openapi",
		Short:  "Print the server's OpenAPI document",
		Args:   cobra.NoArgs,
		Hidden: true,
		RunE: func(c *cobra.Command, _ []string) error {
			enc := json.NewEncoder(c.OutOrStdout())
			enc.SetIndent("", "  ")
			return enc.Encode(api.Document())
		},
	}
}
