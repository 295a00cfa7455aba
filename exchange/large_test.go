package exchange_test

import (
	"bytes"
	"context"
	"fmt"
	"runtime"
	"runtime/debug"
	"strings"
	"testing"
	"time"

	"mokren/exchange"
	"mokren/exchange/fhirr4"
)

// filled repeats a unit until a file is as large as one may be.
func filled(head, tail string, unit func(i int) string) []byte {
	var b bytes.Buffer
	b.Grow(exchange.MaxArchiveBytes)
	b.WriteString(head)
	for i := 0; ; i++ {
		u := unit(i)
		if b.Len()+len(u)+len(tail) > exchange.MaxArchiveBytes {
			break
		}
		b.WriteString(u)
	}
	b.WriteString(tail)
	return b.Bytes()
}

const me = "0190a000-0000-7000-8000-000000000001"

// largest are files of each kind as large as one may be, each with what is worst for its reader.
var largest = []struct {
	name string
	make func() []byte
	read func([]byte) exchange.Report
}{
	{"table of one cell", func() []byte {
		return filled("given_name,family_name\n\"", "\",b\n", func(int) string { return strings.Repeat("a", 1000) })
	}, readTable},
	{"table in UTF-16", func() []byte {
		return filled("\xff\xfe", "", func(int) string { return "a\x00b\x00,\x00\n\x00" })
	}, readTable},
	{"cards, many", func() []byte {
		return filled("", "", func(i int) string {
			return fmt.Sprintf("BEGIN:VCARD\r\nVERSION:2.1\r\nN:Ro;Ada%d\r\nEND:VCARD\r\n", i)
		})
	}, readCards},
	{"cards with photographs", func() []byte {
		photo := strings.Repeat(" "+strings.Repeat("A", 72)+"\r\n", 190)
		return filled("", "", func(i int) string {
			return fmt.Sprintf("BEGIN:VCARD\r\nVERSION:2.1\r\nN;ENCODING=QUOTED-PRINTABLE:Ro;Ada%d\r\n"+
				"PHOTO;BASE64:\r\n%sEND:VCARD\r\n", i, photo)
		})
	}, readCards},
	{"calendar, many", func() []byte { return calendarOf("RRULE:FREQ=WEEKLY\r\n", "") }, readEvents},
	{"calendar of rules that never come true", func() []byte {
		return calendarOf("RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31\r\n", strings.Repeat("y", 14_000))
	}, readEvents},
	{"calendar with descriptions", func() []byte { return calendarOf("", strings.Repeat("y", 14_000)) }, readEvents},
	{"bundle of patients", func() []byte {
		return filled(`{"resourceType":"Bundle","type":"collection","entry":[`, `{}]}`, func(i int) string {
			return fmt.Sprintf(`{"resource":{"resourceType":"Patient","id":"p%d","name":[{"family":"Ro","given":["A"]}],`+
				`"text":{"div":"%s"}}},`, i, strings.Repeat("x", 300))
		})
	}, readFHIR},
	{"bundle of small resources", func() []byte {
		return filled(`{"resourceType":"Bundle","type":"collection","entry":[`, `{}]}`,
			func(int) string { return `{"resource":{"resourceType":"Basic"}},` })
	}, readFHIR},
	{"resources in lines", func() []byte {
		return filled("", "", func(i int) string { return fmt.Sprintf(`{"resourceType":"Patient","id":"p%d"}`+"\n", i) })
	}, readFHIR},
	{"archive", func() []byte {
		return filled(`{"format":"`, `"}`, func(int) string { return strings.Repeat("x", 1000) })
	}, func(raw []byte) exchange.Report { _, r := exchange.ReadArchive(raw); return r }},
}

func calendarOf(rule, text string) []byte {
	return filled("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n", "END:VCALENDAR\r\n", func(i int) string {
		return fmt.Sprintf("BEGIN:VEVENT\r\nUID:%d\r\nDTSTAMP:20310101T000000Z\r\nDTSTART:20220101T090000Z\r\n%s"+
			"SUMMARY:x\r\nDESCRIPTION:%s\r\nEND:VEVENT\r\n", i, rule, text)
	})
}

func readTable(raw []byte) exchange.Report {
	_, r := exchange.ReadClientsCSV(context.Background(), raw, exchange.Choices{})
	return r
}

func readCards(raw []byte) exchange.Report {
	_, r := exchange.ReadVCards(context.Background(), raw, exchange.Choices{})
	return r
}

func readEvents(raw []byte) exchange.Report {
	_, r := exchange.ReadCalendar(context.Background(), raw, exchange.Choices{}, newYear)
	return r
}

func readFHIR(raw []byte) exchange.Report {
	_, r := fhirr4.Read(raw, me, exchange.Choices{})
	return r
}

// BenchmarkLargestFiles reads files of 64 MB: how long, and how much room beside the file itself
// (limits: 30 s, 500 MB).
func BenchmarkLargestFiles(b *testing.B) {
	for _, x := range largest {
		b.Run(x.name, func(b *testing.B) {
			raw := x.make()
			for range b.N {
				b.ReportMetric(roomOf(func() { x.read(raw) }), "MB-beside")
			}
		})
	}
}

// roomOf is how far the heap grows while something runs, in MB.
func roomOf(run func()) float64 {
	debug.FreeOSMemory()
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	before, most := m.HeapInuse, m.HeapInuse
	done, seen := make(chan struct{}), make(chan struct{})
	go func() {
		defer close(seen)
		var m runtime.MemStats
		for {
			select {
			case <-done:
				return
			case <-time.After(10 * time.Millisecond):
				runtime.ReadMemStats(&m)
				most = max(most, m.HeapInuse)
			}
		}
	}()
	run()
	close(done)
	<-seen
	return float64(most-before) / (1 << 20)
}
