// Package atlas knows the muscles: where they run, where their trigger points
// usually lie, how to find and confirm them, what is near, and where they send
// pain. The knowledge is data, one file per muscle in data/; this package
// loads and checks it and places it on the figure.
//
// What the atlas says is a guide from the standard anatomy and myofascial-pain
// literature, never proof about one client.
package atlas
