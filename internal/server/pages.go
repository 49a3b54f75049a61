package server

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io/fs"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"
)

// pages serves the built web. Paths without a file are pages of the
// application, which sorts them out itself; that of a project brings it along.
func pages(web fs.FS, a *api) gin.HandlerFunc {
	files := http.FileServerFS(web)
	index, _ := fs.ReadFile(web, "index.html")
	index = bytes.Replace(index, []byte("<html "), fmt.Appendf(nil, "<html data-version=%q ", a.version), 1)
	return func(c *gin.Context) {
		if strings.HasPrefix(c.Request.URL.Path, "/api/") {
			refuse(c, http.StatusNotFound, "there is no such call")
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			refuse(c, http.StatusMethodNotAllowed, "pages are only read")
			return
		}
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		_, err := fs.Stat(web, name)
		switch {
		case name == "" || errors.Is(err, fs.ErrNotExist) && path.Ext(name) == "":
			c.Header("Cache-Control", "no-cache")
			if page := a.projectPage(c.Request.Context(), name, index); page != nil {
				c.Data(http.StatusOK, "text/html; charset=utf-8", page)
				return
			}
			c.Data(http.StatusOK, "text/html; charset=utf-8", index)
			return
		case strings.HasPrefix(name, "assets/"):
			c.Header("Cache-Control", "public, max-age=31536000, immutable") // names carry a hash
		}
		c.Status(http.StatusOK) // gin presets 404 here
		files.ServeHTTP(c.Writer, c.Request)
	}
}

// projectPage is the page of a project's workbench with the project in it; nil for any
// other page, and where there is no such project.
func (a *api) projectPage(ctx context.Context, name string, index []byte) []byte {
	parts := strings.Split(name, "/")
	if len(parts) < 2 || len(parts) > 3 || parts[0] != "p" || len(parts) == 3 && (parts[2] == "sheet" || parts[2] == "labels") ||
		a.store == nil {
		return nil
	}
	f := a.first(ctx, parts[1])
	if f == nil {
		return nil
	}
	page, err := f.page(index)
	if err != nil {
		return nil
	}
	return page
}
