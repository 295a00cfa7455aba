package main

import (
	"fmt"

	"mokren/store/seal"
)

type sealKeyCmd struct {
	File string `arg:"" help:"Where the key goes; what is there is never written over."`
}

// Run makes a key for MOKREN_SEAL_KEY_FILE.
func (c *sealKeyCmd) Run() error {
	if _, err := seal.Make(c.File); err != nil {
		return err
	}
	fmt.Printf("Give every copy this file, in MOKREN_SEAL_KEY_FILE: %s\n", c.File)
	return nil
}
