package main

import (
	"bytes"
	"encoding/binary"
	"runtime"
	"slices"
	"strings"
)

// The linker's table of functions (runtime/symtab.go, internal/abi/symtab.go), as this release of
// the toolchain lays it out: what the runtime needs to walk a stack, and what only a printed stack
// shows. A module of another release is left as it is.
const laidOutSince = "go1.26"

// Offsets in the header of the table, and in the record of a function.
const (
	headerFuncs, headerNames, headerPCTab, headerTable = 8, 32, 56, 64

	funcName, funcPCSP, funcPCFile, funcPCLine         = 4, 16, 20, 24
	funcPCData, funcUnit, funcLine, funcData, funcSize = 28, 32, 36, 43, 44
)

// What a printed stack alone needs: of the tables by program counter the inlined calls and which
// arguments live, of the data of a function the same and the names of its arguments.
var (
	shownPCData   = []int{0, 2, 3}
	shownFuncData = []int{3, 5, 6, 7}
)

// none says that a function has no data of a kind.
const none = ^uint32(0)

// gofuncField is where module data say where the data of functions lie, counted from the header's
// address, with which they begin.
const gofuncField = 8 + 6*24 + 21*8

// unnamed takes the names, files and lines of functions out of a memory, and says whether it knew how.
// A stack that is printed shows its functions as "?" from then on; walking it needs none of that.
func unnamed(memory []byte) bool {
	if !strings.HasPrefix(runtime.Version(), laidOutSince) {
		return false
	}
	at := bytes.Index(memory, []byte{0xf1, 0xff, 0xff, 0xff, 0, 0, 1, 8})
	if at < 0 {
		return false
	}
	word := func(i int) int { return int(binary.LittleEndian.Uint64(memory[i:])) }
	names := at + word(at+headerNames)
	module := bytes.Index(memory, binary.LittleEndian.AppendUint64(
		binary.LittleEndian.AppendUint64(nil, uint64(at)), uint64(names),
	))
	if module < 0 {
		return false
	}
	t := table{
		memory: memory, at: at, module: module, pctab: at + word(at+headerPCTab), funcs: at + word(at+headerTable),
		gofunc: word(module + gofuncField), count: word(at + headerFuncs),
	}
	if word(module+8+3*24) != t.pctab || t.gofunc <= 0 || t.gofunc >= len(memory) {
		return false
	}
	t.strip()
	clear(memory[names:t.pctab])
	return true
}

// table is the table of functions in a memory.
type table struct {
	memory                           []byte
	at, module, pctab, funcs, gofunc int
	count                            int
}

func (t *table) get(i int) uint32 { return binary.LittleEndian.Uint32(t.memory[i:]) }

func (t *table) set(i int, v uint32) { binary.LittleEndian.PutUint32(t.memory[i:], v) }

// strip clears what only a printed stack shows, but for what another function needs too: equal
// tables are kept once.
func (t *table) strip() {
	needed := make([]bool, t.funcs-t.pctab)
	var starts, live []int // of the data of functions, all and needed
	for i := range t.count {
		f := t.funcs + int(t.get(t.funcs+8*i+4))
		t.set(f+funcName, 0)
		t.set(f+funcPCFile, 0)
		t.set(f+funcPCLine, 0)
		t.set(f+funcUnit, 0)
		t.set(f+funcLine, 0)
		t.need(needed, t.get(f+funcPCSP))
		pcdata := int(t.get(f + funcPCData))
		for k := range pcdata {
			if field := f + funcSize + 4*k; slices.Contains(shownPCData, k) {
				t.set(field, 0)
			} else {
				t.need(needed, t.get(field))
			}
		}
		for k := range int(t.memory[f+funcData]) {
			field := f + funcSize + 4*(pcdata+k)
			of := t.get(field)
			if of == none {
				continue
			}
			starts = append(starts, int(of))
			if slices.Contains(shownFuncData, k) {
				t.set(field, none)
			} else {
				live = append(live, int(of))
			}
		}
	}
	for i, n := range needed {
		if !n {
			t.memory[t.pctab+i] = 0
		}
	}
	t.clearData(starts, live)
}

// need marks a table by program counter: pairs of numbers of seven bits a byte, until one that is
// zero.
func (t *table) need(needed []bool, of uint32) {
	if of == 0 {
		return
	}
	i := int(of)
	for first := true; ; first = false {
		from := i
		for t.memory[t.pctab+i]&0x80 != 0 {
			i++
		}
		i++
		if !first && i-from == 1 && t.memory[t.pctab+from] == 0 {
			needed[from] = true
			return
		}
		for t.memory[t.pctab+i]&0x80 != 0 {
			i++
		}
		i++
		for k := from; k < i; k++ {
			needed[k] = true
		}
	}
}

// clearData clears data of functions that nobody points to any more, each up to where the next
// begins; where the last ends is not known.
func (t *table) clearData(starts, live []int) {
	slices.Sort(starts)
	starts = slices.Compact(starts)
	slices.Sort(live)
	for i := range len(starts) - 1 {
		if _, found := slices.BinarySearch(live, starts[i]); !found {
			clear(t.memory[t.gofunc+starts[i] : t.gofunc+starts[i+1]])
		}
	}
}
