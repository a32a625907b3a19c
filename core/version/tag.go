package version

import "strings"

// Image is what the tag of a container image says: the version of the
// program, and the distribution that is under it.
type Image struct {
	Set     Set
	Known   bool   // the tag has a version
	Alias   string // a word that stands for a version: latest, lts, stable
	Distro  string // debian, ubuntu, alpine; empty where the tag does not say
	Release string // its version, as a number; may be empty
	Otp     string // the release of Erlang beside an Elixir version
}

// codenames are the releases of distributions by their names (Debian
// "Releases", Ubuntu "Release cycle", read 2026-11).
var codenames = map[string]struct{ distro, release string }{
	"jessie": {"debian", "8"}, "stretch": {"debian", "9"}, "buster": {"debian", "10"}, "bullseye": {"debian", "11"}, "bookworm": {"debian", "12"}, "trixie": {"debian", "13"}, "forky": {"debian", "14"},
	"xenial": {"ubuntu", "16.04"}, "bionic": {"ubuntu", "18.04"}, "focal": {"ubuntu", "20.04"}, "jammy": {"ubuntu", "22.04"}, "noble": {"ubuntu", "24.04"},
}

// aliases are words of tags that move from version to version.
var tagAliases = map[string]bool{"latest": true, "lts": true, "current": true, "stable": true, "edge": true, "nightly": true, "mainline": true, "rolling": true, "canary": true, "rc": true, "beta": true, "alpha": true, "unstable": true, "testing": true, "sid": true}

// Tag reads the tag of the image name (its last part): 3.12-slim-bookworm,
// 22-alpine3.20, lts, 21-jre-jammy, 1.17.2-erlang-27.0-debian-bookworm-slim.
func Tag(name, tag string) Image {
	var im Image
	if name == "debian" || name == "ubuntu" || name == "alpine" {
		im.Distro = name
	}
	words := strings.Split(strings.ToLower(tag), "-")
	for i := 0; i < len(words); i++ {
		w := words[i]
		if c, ok := codenames[w]; ok {
			im.Distro, im.Release = c.distro, c.release
			if i == 0 && im.Distro == name {
				im.Set, im.Known = Prefix(c.release)
			}
			continue
		}
		if rest, ok := strings.CutPrefix(w, "alpine"); ok {
			im.Distro, im.Release = "alpine", rest
			if rest == "" && i+1 < len(words) && isVersion(words[i+1]) && i > 0 {
				im.Release = words[i+1]
				i++
			}
			continue
		}
		if w == "erlang" && i+1 < len(words) {
			im.Otp = words[i+1]
			i++
			continue
		}
		if rest, ok := strings.CutPrefix(w, "otp"); ok && i > 0 && rest != "" {
			im.Otp = rest
			continue
		}
		if i == 0 {
			num := w
			if j := strings.IndexAny(num, "_+"); j > 0 {
				num = num[:j] // 21.0.2_13
			}
			if strings.HasPrefix(num, "8u") {
				num = "8"
			}
			if im.Set, im.Known = Prefix(num); !im.Known && tagAliases[w] {
				im.Alias = w
			}
			if im.Known && im.Distro == name {
				im.Release = num
			}
		}
	}
	return im
}

func isVersion(s string) bool { return s != "" && s[0] >= '0' && s[0] <= '9' }
