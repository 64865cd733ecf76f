package main

import (
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/spf13/cobra"

	"earlychorus/core/ask"
)

// questionsCommand prints what the page may ask of the core as an OpenAPI
// document, for scripts/api: the page's types are written from it.
func questionsCommand() *cobra.Command {
	return &cobra.Command{
		Use:    "questions",
		Short:  "Print what the page may ask of the core, as an OpenAPI document",
		Hidden: true,
		Args:   cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			enc := json.NewEncoder(c.OutOrStdout())
			enc.SetIndent("", "  ")
			return enc.Encode(questionsDocument())
		},
	}
}

// questionsDocument describes each question as if it were posted to a path of its
// name.
func questionsDocument() *huma.OpenAPI {
	schemas := huma.NewMapRegistry("#/components/schemas/", huma.DefaultSchemaNamer)
	document := &huma.OpenAPI{
		OpenAPI:    "3.1.0",
		Info:       &huma.Info{Title: "What the page asks of the core", Version: "1"},
		Components: &huma.Components{Schemas: schemas},
		Paths:      map[string]*huma.PathItem{},
	}
	for _, q := range ask.Questions() {
		document.Paths["/"+q.Name] = &huma.PathItem{Post: &huma.Operation{
			Method:      http.MethodPost,
			Path:        "/" + q.Name,
			OperationID: q.Name,
			Summary:     q.Doc,
			RequestBody: &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
				"application/json": {Schema: schemas.Schema(q.Request, true, "")},
			}},
			Responses: map[string]*huma.Response{"200": {
				Description: "OK",
				Content: map[string]*huma.MediaType{
					"application/json": {Schema: schemas.Schema(q.Answer, true, "")},
				},
			}},
		}}
	}
	return document
}
