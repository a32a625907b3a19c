package survey

import (
	"maps"
	"path"
	"slices"
	"strings"

	"ubique/core/document"
	"ubique/core/fact"
	"ubique/core/place"
	"ubique/core/source"
	"ubique/core/value"
)

// imageListeners finds where the web servers of images listen: nginx, Apache,
// FastCGI of PHP, Caddy, by the settings that the container file copies or
// changes (nginx: ngx_http_core_module, "listen", and the image's templates;
// Apache HTTP Server 2.4: "Listen", and variables in settings; PHP: the
// image's zz-docker.conf; read 2026-11).
func imageListeners(t *source.Tree, st *fact.Start) []*fact.Listener {
	if st.Descriptor == nil || st.Descriptor.Image == nil {
		return nil
	}
	at := st.Final.At
	l := &fact.Listener{Process: st.Process, Via: "default", At: at, PortAt: at, HostAt: at}
	switch st.Final.Program {
	case "nginx":
		l.Server = "nginx"
		nginx(t, st, l)
	case "apache2-foreground", "httpd-foreground", "apache2", "httpd":
		l.Server = "apache"
		apache(t, st, l)
	case "php-fpm":
		l.Server = "php-fpm"
	case "catalina.sh":
		l.Server = "tomcat"
	default:
		return nil
	}
	return []*fact.Listener{l}
}

// copied lists the files that an image takes from the tree into a folder or
// under it: by their path in the image.
func copied(t *source.Tree, im *fact.Image, under string) map[string]string {
	files := map[string]string{}
	for _, c := range im.Copies {
		if !c.Final || c.FromStage != "" {
			continue
		}
		dest := c.Dest
		if !strings.HasPrefix(dest, "/") {
			dest = path.Join(c.Dir, dest) + strings.Repeat("/", min(1, len(c.Dest)-len(strings.TrimSuffix(c.Dest, "/"))))
		}
		for _, src := range c.Sources {
			p := strings.Trim(path.Join(im.Context, src), "/")
			if t.HasDir(p) {
				for _, e := range t.Below(p) {
					to := path.Join(dest, strings.TrimPrefix(e.Path, p))
					if strings.HasPrefix(to, under) {
						files[to] = e.Path
					}
				}
				continue
			}
			to := dest
			if strings.HasSuffix(dest, "/") || len(c.Sources) > 1 || path.Ext(dest) == "" && path.Ext(src) != "" {
				to = path.Join(dest, path.Base(src))
			}
			if t.Has(p) && strings.HasPrefix(to, under) {
				files[to] = p
			}
		}
	}
	return files
}

// edits are commands of an image that change settings, with their text.
func edits(st *fact.Start, of string) []string {
	var list []string
	im := st.Descriptor.Image
	for _, r := range im.Runs {
		if r.Final && strings.Contains(r.Text, of) {
			list = append(list, r.Text)
		}
	}
	if strings.Contains(im.Text, of) && (strings.Contains(im.Text, "sed ") || strings.Contains(im.Text, "envsubst")) {
		list = append(list, im.Text)
	}
	return list
}

func nginx(t *source.Tree, st *fact.Start, l *fact.Listener) {
	for _, b := range st.Descriptor.Image.Bases {
		if b.Final && strings.HasSuffix(b.Name, "nginx-unprivileged") {
			l.Port = value.Text("8080", b.At)
		}
	}
	files := copied(t, st.Descriptor.Image, "/etc/nginx/")
	if len(edits(st, "/etc/nginx/")) > 0 || st.Final.Program == "nginx" && len(st.Final.Flags("-c")) > 0 {
		why := value.NotKnown("settings of nginx that a command of the image changes", l.At)
		l.Port, l.Host = why, why
		return
	}
	main := files["/etc/nginx/nginx.conf"]
	read := func(name string, template bool) bool {
		f, err := t.Document(name)
		if err != nil {
			return false
		}
		for _, w := range document.Directives(name, f.Data, f.Lines()) {
			if w.Name != "listen" || len(w.Args) == 0 || w.Has("ssl") || w.Has("quic") {
				continue
			}
			l.At, l.PortAt, l.HostAt, l.Via = w.At, w.At, w.At, "setting"
			bind := value.Text(w.Args[0], w.At)
			if template {
				bind = substitutedText(w.Args[0], w.At)
			}
			l.Bind, l.Port = bind, nil
			return true
		}
		return false
	}
	if main != "" && read(main, false) {
		return
	}
	for _, to := range []string{"/etc/nginx/templates/default.conf.template", "/etc/nginx/conf.d/default.conf"} {
		if name := files[to]; name != "" && read(name, strings.HasSuffix(to, ".template")) {
			return
		}
	}
	for _, to := range slices.Sorted(maps.Keys(files)) {
		if template := strings.HasPrefix(to, "/etc/nginx/templates/"); (template || strings.HasPrefix(to, "/etc/nginx/conf.d/")) && read(files[to], template) {
			return
		}
	}
}

// substitutedText is a text of a template in which ${NAME} is replaced where
// the variable is set; else it stays, and the server does not start.
func substitutedText(s string, at place.Span) *value.Value {
	return value.Fill(s, "$", "", at, func(name string) *value.Value {
		return value.Variable(name, value.Raises, at)
	})
}

func apache(t *source.Tree, st *fact.Start, l *fact.Listener) {
	files := copied(t, st.Descriptor.Image, "/")
	for _, to := range slices.Sorted(maps.Keys(files)) {
		base := path.Base(to)
		if base != "ports.conf" && base != "httpd.conf" && base != "apache2.conf" || !strings.Contains(to, "apache") && !strings.Contains(to, "httpd") {
			continue
		}
		f, err := t.Document(files[to])
		if err != nil {
			continue
		}
		for _, w := range document.Lined(files[to], f.Data, f.Lines()) {
			if strings.EqualFold(w.Name, "Listen") && len(w.Args) > 0 {
				l.At, l.PortAt, l.HostAt, l.Via = w.At, w.At, w.At, "setting"
				l.Bind = substitutedText(w.Args[0], w.At)
			}
		}
	}
	for _, text := range edits(st, "ports.conf") {
		at := st.Descriptor.Image.At
		for _, r := range st.Descriptor.Image.Runs {
			if r.Text == text {
				at = r.At
			}
		}
		port := edited(text, at)
		if port == nil {
			port = value.NotKnown("settings of Apache that a command of the image changes", l.At)
		}
		l.Bind, l.Port, l.Via, l.At, l.PortAt = nil, port, "setting", at, at
	}
}

// edited is the port that a command puts into the settings: the last number or
// variable of the replacement of sed 's/80/${PORT}/'; nil where it is not read.
func edited(text string, at place.Span) *value.Value {
	i := strings.Index(text, "s/")
	if i < 0 {
		return nil
	}
	parts := strings.SplitN(text[i+2:], "/", 3)
	if len(parts) < 3 {
		return nil
	}
	with := strings.Fields(strings.ReplaceAll(parts[1], `\`, ""))
	if len(with) == 0 {
		return nil
	}
	last := with[len(with)-1]
	if strings.Contains(last, "$") {
		return substitutedText(last, at)
	}
	if last != "" && strings.Trim(last, "0123456789") == "" {
		return value.Text(last, at)
	}
	return nil
}
