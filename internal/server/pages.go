package server

import (
	"errors"
	"io/fs"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"
)

// pages serves the built web. Paths without a file are pages of the
// application, which sorts them out itself.
func pages(web fs.FS) gin.HandlerFunc {
	files := http.FileServerFS(web)
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
			c.FileFromFS("/", http.FS(web))
			return
		case strings.HasPrefix(name, "assets/"):
			c.Header("Cache-Control", "public, max-age=31536000, immutable") // names carry a hash
		}
		c.Status(http.StatusOK) // gin presets 404 here
		files.ServeHTTP(c.Writer, c.Request)
	}
}
