package start

import (
	"fmt"
	"slices"
	"strings"

	"ubique/core/command"
	"ubique/core/rules"
)

// unsafe says which commands generate files that belong in the tree, or ask a
// question (documentation of each tool, read 2026-11). Words are all in the
// command, in this order; unless is a flag that makes it sound.
var unsafe = []struct {
	words, unless, what, instead string
}{
	{"makemigrations", "--check --dry-run", "generates", "migrate"},
	{"makemessages", "", "generates", ""},
	{"startapp", "", "generates", ""},
	{"createsuperuser", "--noinput --no-input", "asks", "createsuperuser --noinput"},
	{"changepassword", "", "asks", ""},
	{"flush", "--noinput --no-input", "asks", "flush --noinput"},
	{"collectstatic", "--noinput --no-input", "asks", "collectstatic --noinput"},
	{"flask db migrate", "", "generates", "flask db upgrade"},
	{"flask db revision", "", "generates", "flask db upgrade"},
	{"alembic revision", "", "generates", "alembic upgrade head"},
	{"prisma migrate dev", "", "generates", "prisma migrate deploy"},
	{"prisma migrate reset", "--force -f", "asks", "prisma migrate deploy"},
	{"sequelize migration:generate", "", "generates", "sequelize db:migrate"},
	{"sequelize-cli migration:generate", "", "generates", "sequelize-cli db:migrate"},
	{"typeorm migration:generate", "", "generates", "typeorm migration:run"},
	{"typeorm migration:create", "", "generates", "typeorm migration:run"},
	{"knex migrate:make", "", "generates", "knex migrate:latest"},
	{"drizzle-kit generate", "", "generates", "drizzle-kit migrate"},
	{"drizzle-kit push", "--force", "asks", "drizzle-kit migrate"},
	{"mikro-orm migration:create", "", "generates", "mikro-orm migration:up"},
	{"rails generate", "", "generates", "rails db:migrate"},
	{"rails g", "", "generates", "rails db:migrate"},
	{"ecto.gen.migration", "", "generates", "mix ecto.migrate"},
	{"artisan make:migration", "", "generates", "php artisan migrate --force"},
	{"artisan migrate", "--force --pretend", "asks", "php artisan migrate --force"},
	{"artisan migrate:fresh", "--force", "asks", "php artisan migrate --force"},
	{"artisan migrate:refresh", "--force", "asks", "php artisan migrate --force"},
	{"artisan db:seed", "--force", "asks", "php artisan db:seed --force"},
	{"artisan key:generate", "--force --show", "asks", ""},
	{"doctrine:migrations:diff", "", "generates", "doctrine:migrations:migrate --no-interaction"},
	{"make:migration", "", "generates", "doctrine:migrations:migrate --no-interaction"},
	{"doctrine:migrations:migrate", "--no-interaction -n", "asks", "doctrine:migrations:migrate --no-interaction"},
	{"dotnet ef migrations add", "", "generates", "dotnet ef database update"},
	{"diesel migration generate", "", "generates", "diesel migration run"},
	{"sqlx migrate add", "", "generates", "sqlx migrate run"},
	{"npm init", "-y --yes", "asks", ""},
}

var releaseUnsafe = &rules.Rule{
	ID: "start/release-unsafe", Level: rules.Risk, Title: "a release step generates migrations or asks a question", Doc: doc("release-unsafe"),
	Check: func(p *rules.Pass) {
		for _, on := range p.On {
			var steps []command.Final
			for _, s := range p.Component.Starts {
				if s.Process == "release" && on.Host.Release != "" && slices.Contains(on.Host.Starts, s.Source) {
					steps = append(append(steps, s.Final.Before...), s.Final)
				}
			}
			if on.Start != nil {
				steps = append(steps, on.Start.Final.Before...)
			}
			for _, f := range steps {
				releaseStep(p, on, f)
			}
		}
	},
}

func releaseStep(p *rules.Pass, on *rules.On, f command.Final) {
	words := []string{f.Program}
	at := map[string]command.Word{}
	for _, a := range f.Args {
		words = append(words, a.Text)
		if _, ok := at[a.Text]; !ok {
			at[a.Text] = a
		}
	}
	for _, u := range unsafe {
		need := strings.Fields(u.words)
		if !inOrder(words, need) {
			continue
		}
		sound := false
		for flag := range strings.FieldsSeq(u.unless) {
			for _, w := range words {
				sound = sound || w == flag || strings.HasPrefix(w, flag+"=")
			}
		}
		if sound || variableSet(f, on) {
			continue
		}
		where := f.At
		if w, ok := at[need[len(need)-1]]; ok {
			where = w.At
		}
		x := rules.Finding{Where: where, Trail: f.Steps, Remedy: u.instead}
		if u.what == "generates" {
			x.Message = fmt.Sprintf("%s generates files while the host releases: they are lost with the machine that the step ran on", u.words)
			if u.instead == "" {
				x.Remedy = "run it on your own machine, and commit what it writes"
			}
		} else {
			x.Message = fmt.Sprintf("%s asks a question, and nobody is there to answer while the host releases", u.words)
			if u.instead == "" {
				x.Remedy = "the step without " + u.words
			}
		}
		p.Report(on, 0, x)
		return
	}
}

// variableSet reports whether a tool that asks is told by the environment not
// to.
func variableSet(f command.Final, on *rules.On) bool {
	if f.Program != "php" && !strings.HasSuffix(f.Path, "artisan") {
		return false
	}
	env := ""
	if v, ok := on.Env.Lookup("APP_ENV", false); ok {
		env = v
	}
	return env != "" && env != "production" // Laravel asks in production only
}

// inOrder reports whether words stand in a list in their order, nothing but
// flags between them.
func inOrder(list, need []string) bool {
	for i := range list {
		k := i
		n := 0
		for n < len(need) && k < len(list) {
			if list[k] == need[n] {
				n++
				k++
				continue
			}
			if n > 0 && strings.HasPrefix(list[k], "-") {
				k++
				continue
			}
			break
		}
		if n == len(need) {
			return true
		}
	}
	return false
}
