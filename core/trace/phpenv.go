package trace

import (
	"path"
	"strings"
)

// The superglobals of PHP and the two libraries that fill them from files (PHP
// manual, "Predefined Variables"; phpdotenv 5, "Immutability and Repository
// Customization"; Symfony 7, "The Dotenv Component").

// phEnv is $_ENV: it holds the environment only where variables_order has an E.
func (m *machine) phEnv() *object {
	p := m.ph()
	if p.env == nil {
		p.env = phArray()
		if m.set.Filled {
			for _, k := range m.envKeys() {
				p.env.set(k, m.env.text(k))
			}
		}
	}
	return p.env
}

// phServer is $_SERVER as an array that the program can change.
func (m *machine) phServer() *object {
	p := m.ph()
	if p.server == nil {
		o := phArray()
		for _, k := range m.envKeys() {
			o.set(k, m.env.text(k))
		}
		o.set("argv", phList(m.argv()))
		o.set("argc", integer(len(m.argv())))
		for _, k := range []string{"SCRIPT_FILENAME", "PHP_SELF", "SCRIPT_NAME"} {
			o.set(k, root+"/"+m.main.Name)
		}
		p.server = o
	}
	return p.server
}

// phDotenv is what the two libraries do; done is false for any other call.
func (m *machine) phDotenv(f *opaque, args []any, at spot) (any, bool, error) {
	i := strings.LastIndexByte(f.path, '.')
	if i < 0 {
		return nil, false, nil
	}
	of, name := strings.ReplaceAll(f.path[:i], "\\", "."), f.path[i+1:]
	switch {
	case strings.HasPrefix(of, "Dotenv.Dotenv.create") || strings.HasPrefix(of, "Dotenv.create"):
		if name != "load" && name != "safeLoad" || f.recv == nil {
			return nil, false, nil
		}
		made := f.recv
		kind := strings.TrimSuffix(made.path[strings.LastIndexByte(made.path, '.')+1:], "()")
		dirs, names := phTexts(first(made.args)), phTexts(at2(made.args, 1))
		if len(names) == 0 {
			names = []string{".env"}
		}
		if len(dirs) == 0 || !strings.HasSuffix(kind, "mmutable") && !strings.HasSuffix(kind, "Mutable") {
			return nil, true, giveUp("what a dotenv file is")
		}
		for _, d := range dirs {
			for _, n := range names {
				if done, err := m.phLoad(path.Join(d, n), strings.HasSuffix(kind, "Mutable"), strings.Contains(kind, "Unsafe"), true, at); done || err != nil {
					return phArray(), true, err
				}
			}
		}
		if name == "load" {
			return nil, true, raise("Dotenv\\Exception\\InvalidPathException", "Unable to read any of the environment file(s)")
		}
		return phArray(), true, nil
	case strings.HasSuffix(of, "Component.Dotenv.Dotenv()") || of == "Dotenv()":
		files := phTexts(first(args))
		switch name {
		case "usePutenv":
			m.ph().putenv = true
			return f.recv, true, nil
		case "load", "overload":
			for _, a := range args {
				files = append(files[:0:0], phTexts(a)...)
				for _, p := range files {
					done, err := m.phLoad(p, name == "overload", m.ph().putenv, false, at)
					if err == nil && !done {
						err = raise("Symfony\\Component\\Dotenv\\Exception\\PathException", "Unable to read "+p)
					}
					if err != nil {
						return nil, true, err
					}
				}
			}
			return nil, true, nil
		case "loadEnv", "bootEnv":
			if len(files) != 1 || len(args) > 1 {
				return nil, true, giveUp("which dotenv files are loaded")
			}
			return nil, true, m.phStages(files[0], at)
		}
	}
	return nil, false, nil
}

// phStages loads the files of Symfony: .env, .env.local, .env.STAGE and
// .env.STAGE.local.
func (m *machine) phStages(p string, at spot) error {
	done, err := m.phLoad(p, false, m.ph().putenv, false, at)
	if err != nil {
		return err
	}
	if !done {
		if done, err = m.phLoad(p+".dist", false, m.ph().putenv, false, at); err != nil {
			return err
		} else if !done {
			return raise("Symfony\\Component\\Dotenv\\Exception\\PathException", "Unable to read "+p)
		}
	}
	stage := func() string {
		for _, o := range []*object{m.phServer(), m.phEnv()} {
			if v, ok := o.get("APP_ENV"); ok && known(v) {
				return show(v)
			}
		}
		return ""
	}
	if stage() == "" {
		m.phServer().set("APP_ENV", "dev")
		m.phEnv().set("APP_ENV", "dev")
	}
	if stage() != "test" {
		if _, err := m.phLoad(p+".local", false, m.ph().putenv, false, at); err != nil {
			return err
		}
	}
	now := stage()
	if now == "local" {
		return nil
	}
	for _, f := range []string{p + "." + now, p + "." + now + ".local"} {
		if _, err := m.phLoad(f, false, m.ph().putenv, false, at); err != nil {
			return err
		}
	}
	return nil
}

// phLoad sets what a dotenv file says; done is false where there is none. What is
// set already stays, unless it overwrites; what an earlier file has set does not
// count as set for Symfony.
func (m *machine) phLoad(p string, over, putenv, keep bool, at spot) (done bool, err error) {
	inTree, ok := m.treePath(p)
	if !ok {
		return false, nil
	}
	d := m.e.Loader.Data(inTree)
	if _, there := m.e.Loader.Text(inTree); !there {
		return false, nil
	}
	env, server := m.phEnv(), m.phServer()
	state := m.ph()
	if state.fromFile == nil {
		state.fromFile = map[string]bool{}
	}
	for _, n := range d.Items() {
		_, inEnv := env.get(n.Key)
		_, inServer := server.get(n.Key)
		_, inReal := m.lookup(n.Key, at)
		set := inEnv || inServer || putenv && keep && inReal
		if set && !over && (keep || !state.fromFile[n.Key]) {
			continue
		}
		v := expandText(n.Str(), func(name string) (string, bool) {
			for _, o := range []*object{env, server} {
				if v, ok := o.get(name); ok && known(v) {
					return show(v), true
				}
			}
			return m.lookup(name, at)
		}, 0)
		state.fromFile[n.Key] = true
		env.set(n.Key, v)
		server.set(n.Key, v)
		if putenv {
			m.env.put(n.Key, v)
		}
	}
	return true, nil
}

// phTexts are the texts of a value: one, or those of an array.
func phTexts(v any) []string {
	switch v := v.(type) {
	case string:
		return []string{v}
	case *object:
		var l []string
		for _, k := range v.keys {
			t, ok := v.cells[k].v.(string)
			if !ok {
				return nil
			}
			l = append(l, t)
		}
		return l
	}
	return nil
}
