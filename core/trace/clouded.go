package trace

import "strings"

// What is not known stays so in what is made of it: whether something is the same
// as what a call of a package gave, how many different things there are among
// such, in which order they come.

// comparingItems are methods of collections and functions that compare items with each
// other or with what they are given (Ruby 3.4, PHP 8.4, Java 25, Python 3.14).
var comparingItems = words(`include? member? index find_index rindex count uniq uniq! max min minmax sum join tally group_by sort sort! difference union intersection
	intersect? - & | == != === eql? <=> sort_by max_by min_by each_cons chunk_while partition disjoint? subset? superset? to_set
	contains containsAll indexOf lastIndexOf distinct sorted max min sum equals hashCode toSet joining removeAll retainAll containsValue frequency disjoint
	in_array array_search array_unique sort rsort usort asort arsort ksort krsort array_sum array_product implode join array_flip array_count_values array_diff array_intersect
	array_combine json_encode http_build_query vsprintf array_fill_keys array_column range str_split str_word_count array_diff_key array_intersect_key`)

// choosing are those that choose by what they are given.
var choosing = words(`[] fetch dig key? has_key? has_value? value? slice values_at delete at except key
	get getOrDefault containsKey remove computeIfAbsent merge putIfAbsent computeIfPresent
	array_key_exists array_slice array_chunk array_pad array_fill str_repeat substr_count ucfirst ucwords lcfirst strrev strtr str_pad number_format
	hash md5 crc32 sha1 base64_encode base64_decode bin2hex urlencode rawurlencode urldecode parse_url parse_str nl2br htmlspecialchars addslashes ord chr
	floor ceil round abs fmod intdiv pow sqrt hexdec bindec octdec dechex ctype_alpha ctype_alnum ctype_upper ctype_lower str_word_count similar_text levenshtein strcmp strcasecmp strncmp strncasecmp strnatcmp
	preg_replace preg_split preg_match_all preg_quote stripos strrpos stristr strstr strrchr substr_replace is_bool is_float is_callable is_object is_iterable array_rand version_compare checkdate`)

// clouded finds what is not known and decides what a method of a collection or a
// function gives; nil where there is no such thing.
func clouded(base any, name string, args []any) *opaque {
	switch {
	case comparingItems[name]:
		if o := unclear([]any{base}, 0); o != nil {
			return o
		}
		return unclear(args, 1)
	case choosing[name]:
		return unclear(args, 3)
	}
	return nil
}

// unclear finds what nothing is known of, or what a call of a package gave, among
// values and, a few lists deep, in them.
func unclear(values []any, depth int) *opaque {
	for _, v := range values {
		switch v := v.(type) {
		case *opaque:
			if v.path == "" || strings.Contains(v.path, "()") {
				return v
			}
		case *list:
			if depth < 3 {
				if o := unclear(v.items, depth+1); o != nil {
					return o
				}
			}
		case *object:
			if depth >= 3 || v.class != nil && !v.dict {
				continue
			}
			for _, k := range v.keys {
				if o := unclear([]any{v.cells[k].v}, depth+1); o != nil {
					return o
				}
			}
		}
	}
	return nil
}
