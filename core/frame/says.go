package frame

import (
	"slices"
	"strings"
)

// meaningWords is what people say for what a size measures.
var meaningWords = map[string]Meaning{
	"centre": Centre, "center": Centre, "c-c": Centre, "cc": Centre, "c": Centre,
	"outside": Outside, "out": Outside, "over": Outside,
	"clear": Clear, "inside": Clear, "in-between": Clear, "free": Clear,
	"cut": Cut, "long": Cut, "piece": Cut,
	"visible": Visible, "bare": Visible, "shows": Visible,
	"slot": Slot, "gap": Slot,
	"top": TopOfPipe, "high": TopOfPipe, "top-of-pipe": TopOfPipe, "cap": TopOfCap, "top-of-cap": TopOfCap,
}

// SplitMeaning parts a length as typed from the word that says what it measures: "46 clear" is 46,
// and clear. The meaning is empty where no such word ends the text.
func SplitMeaning(text string) (length string, m Meaning) {
	text = strings.TrimSpace(text)
	i := strings.LastIndexAny(text, " \t") + 1
	if m, ok := meaningWords[strings.ToLower(text[i:])]; ok {
		return strings.TrimSpace(text[:i]), m
	}
	return text, ""
}

// Can lists the meanings that a size can have: a height those of heights, what lies between two
// places those of a distance, and where a pipe runs there, that of the piece as well.
func (s *Size) Can(pipe bool) []Meaning {
	switch {
	case s.From == Floor:
		return []Meaning{TopOfPipe, TopOfCap}
	case s.Half:
		return []Meaning{Cut}
	case pipe || s.Pipe != "":
		return []Meaning{Cut, Visible, Centre, Outside, Clear, Slot}
	case s.Axis == "":
		return []Meaning{Centre, Outside, Clear}
	}
	return []Meaning{Centre, Outside, Clear, Slot}
}

// CanSay is the meanings that a size can have, as words.
func (s *Size) CanSay(pipe bool) string {
	var all []string
	for _, m := range s.Can(pipe) {
		all = append(all, strings.TrimPrefix(strings.TrimSuffix(string(m), "-of-pipe"), "top-of-"))
	}
	return strings.Join(slices.Compact(all), ", ")
}
