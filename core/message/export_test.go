package message

// Source gives the three texts of a message, for its tests.
func Source(code string) string {
	m := messages[code]
	return m.Text + m.Hint + m.Many
}
