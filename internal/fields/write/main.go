// Command write prints what each field of the API's types says of itself, as JSON, for
// the server to embed. It is run in the project's folder, by make types.
package main

import (
	"encoding/json"
	"log"
	"os"

	"sturdyelbow/internal/fields"
)

func main() {
	all, err := fields.Read("core", "internal")
	if err != nil {
		log.Fatal(err)
	}
	for k, v := range all {
		if v == "" {
			delete(all, k)
		}
	}
	out := json.NewEncoder(os.Stdout)
	out.SetIndent("", " ")
	out.SetEscapeHTML(false)
	if err := out.Encode(all); err != nil {
		log.Fatal(err)
	}
}
