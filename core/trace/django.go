package trace

import (
	"strings"

	"mvdan.cc/sh/v3/syntax"
)

// djangoOptions are the options that every command of Django takes (Django 5.2,
// "django-admin and manage.py", "Common options").
var djangoOptions = []struct {
	flags []any
	keys  map[string]any
}{
	{[]any{"--settings"}, nil}, {[]any{"--pythonpath"}, nil},
	{[]any{"--traceback"}, map[string]any{"action": "store_true"}}, {[]any{"--no-color"}, map[string]any{"action": "store_true"}},
	{[]any{"--force-color"}, map[string]any{"action": "store_true"}}, {[]any{"--skip-checks"}, map[string]any{"action": "store_true"}},
	{[]any{"-v", "--verbosity"}, map[string]any{"default": integer(1)}},
}

// djangoCommand runs the command that the command line names, where an application of the
// tree brings it along (Django 5.2, "How to create custom django-admin commands").
func (m *machine) djangoCommand(settings *module, at spot) error {
	line := m.words(1)
	if len(line) == 0 || unclear(line, 0) != nil {
		return nil
	}
	name := show(line[0])
	apps, ok := cellIn(settings, "INSTALLED_APPS").(*list)
	if !ok || !syntax.ValidName(name) {
		return nil
	}
	for i := len(apps.items) - 1; i >= 0; i-- {
		app, _, _ := strings.Cut(show(apps.items[i]), ".apps.")
		p, ok := m.e.Loader.Resolve(at.f, app+".management.commands."+name, "")
		if !ok || !strings.HasSuffix(p, "/"+name+".py") {
			continue
		}
		mod, err := m.load(p)
		if err != nil {
			return err
		}
		c, ok := cellIn(mod, "Command").(*class)
		if !ok {
			return giveUp("a command of Django")
		}
		made, err := m.create(c, nil, nil, at)
		if err != nil {
			return err
		}
		o, ok := made.(*object)
		if !ok || m.method(o, "handle") == nil {
			return giveUp("a command of Django")
		}
		back, parser := m.newArgParser(nil)
		for _, x := range djangoOptions {
			parser.add(x.flags, x.keys)
		}
		if f := m.method(o, "add_arguments"); f != nil {
			if _, err := m.call(f, o, []any{back}, nil, at); err != nil {
				return err
			}
		}
		given, rest, err := m.argParse(parser, line[1:], newObject(), at)
		if err != nil {
			return err
		}
		if len(rest) > 0 {
			return &exit{}
		}
		options := map[string]any{}
		for _, k := range given.keys {
			options[k] = given.cells[k].v
		}
		_, err = m.call(m.method(o, "handle"), o, nil, options, at)
		return err
	}
	return nil
}

// cellIn is what a name at the top of a module holds; nil for none.
func cellIn(mod *module, name string) any {
	if c := mod.top.vars[name]; c != nil {
		return c.v
	}
	return nil
}
