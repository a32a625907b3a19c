package survey

import (
	"ubique/core/fact"
	"ubique/core/source"
	"ubique/core/value"
)

// thinConfig reads where thin listens from the file that -C names: what it says counts
// more than the command line (thin 1.8, lib/thin/runner.rb, load_options_from_config_file!).
func (s *Starter) thinConfig(st *fact.Start, prog *Program) {
	w, ok, _ := st.Final.Flag("-C", "--config")
	if !ok {
		return
	}
	l := st.Listeners[0]
	p, in := source.Join(st.Final.Dir, w.Text)
	d := prog.Data(p)
	if !w.Literal() || !in || d == nil {
		l.Port, l.Host, l.Bind = nil, nil, value.NotKnown("the settings in "+w.Text, w.At)
		return
	}
	l.Via = "setting"
	if n := d.Get("port"); n != nil {
		l.Port, l.PortAt = value.FromDocument(n), n.At()
	}
	if n := d.Get("address"); n != nil {
		l.Host, l.HostAt = value.FromDocument(n), n.At()
	}
	if n := d.Get("socket"); n != nil {
		l.Bind, l.PortAt, l.HostAt = socketFile(value.FromDocument(n), n.At()), n.At(), n.At()
	}
	if n := d.Get("servers"); n != nil {
		l.Bind = value.NotKnown("several servers", n.At())
	}
	st.Reached = append(st.Reached, p)
}
