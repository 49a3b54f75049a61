package frame

// Word is what a value of the document is called on a label, with a word of explanation.
type Word struct {
	Value string `json:"value"`
	Words string `json:"words"`
	Note  string `json:"note,omitempty"`
}

// Label finds the words of a value; the value itself where there are none.
func Label[V ~string](all []Word, value V) string {
	for _, w := range all {
		if w.Value == string(value) {
			return w.Words
		}
	}
	return string(value)
}

// MeaningWords are the labels of what a size may mean.
func MeaningWords() []Word {
	return []Word{
		{string(Centre), "centre to centre", ""}, {string(Outside), "outside", "over the fittings"},
		{string(Clear), "clear inside", "between the pipes"}, {string(TopOfPipe), "floor to pipe top", ""},
		{string(TopOfCap), "floor to cap top", ""}, {string(Slot), "slot between bodies", ""},
		{string(Visible), "visible pipe", "between two rims"}, {string(Cut), "cut length", ""},
	}
}

// ClassWords are the labels of how exactly a piece is cut.
func ClassWords() []Word {
	return []Word{
		{string(Exact), "exact", "to the tape"},
		{string(Matched), "a matched set", "all alike, in one setting of the stop"},
		{string(Trim), "cut long, trim to fit", "1/4 long unless said"},
		{string(Rough), "rough", "a little more or less is fine"},
		{string(OnFrame), "measured on the frame", "left uncut until it is measured"},
	}
}

// ModeWords are the labels of how a pipe is held in a socket.
func ModeWords() []Word {
	return []Word{
		{string(Cemented), "cemented", ""}, {string(Slip), "dry, driven", ""},
		{string(Eased), "dry, eased to lift off", ""}, {string(Pinned), "pinned through", ""},
	}
}

// PathWords say what becomes of a piece that is not straight.
func PathWords() []Word {
	return []Word{{string(Sprung), "sprung", ""}, {string(Bent), "bent by heat after cutting", ""}}
}
