package pin

var label = map[string]string{"node": "Node.js", "python": "Python"}
