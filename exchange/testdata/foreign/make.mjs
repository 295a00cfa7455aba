import ICAL from "ical.js"; import { ICalCalendar } from "ical-generator"; import fs from "fs"; import vCard from "vcf";
import * as tz from "timezones-ical-library";
const out = "./";
// outlook-like: ical.js
const cal = (events, zones=[]) => { const c = new ICAL.Component(["vcalendar", [], []]); c.addPropertyWithValue("version","2.0"); c.addPropertyWithValue("prodid","-//test//EN"); for (const z of zones) c.addSubcomponent(z); for (const e of events) c.addSubcomponent(e); return c.toString()+"\r\n"; };
const ev = (props) => { const e = new ICAL.Component("vevent"); for (const [k,v,params,type] of props) { const p = new ICAL.Property(k); for (const [a,b] of Object.entries(params||{})) p.setParameter(a,b); if (type==="recur") p.setValue(ICAL.Recur.fromString(v)); else if (type==="dt") p.setValue(ICAL.Time.fromString(v)); else p.setValue(v); e.addProperty(p);} return e; };
const zone = new ICAL.Component("vtimezone"); zone.addPropertyWithValue("tzid","W. Europe Standard Time");
for (const [n,from,to,rr] of [["standard","+02:00","+01:00","FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10"],["daylight","+01:00","+02:00","FREQ=YEARLY;BYDAY=-1SU;BYMONTH=3"]]) {
  const s = new ICAL.Component(n); const d=new ICAL.Property("dtstart"); d.setValue(ICAL.Time.fromString(n==="standard"?"1601-01-01T03:00:00":"1601-01-01T02:00:00")); s.addProperty(d);
  s.addPropertyWithValue("tzoffsetfrom", ICAL.UtcOffset.fromString(from)); s.addPropertyWithValue("tzoffsetto", ICAL.UtcOffset.fromString(to));
  const r=new ICAL.Property("rrule"); r.setValue(ICAL.Recur.fromString(rr)); s.addProperty(r); zone.addSubcomponent(s); }
const w = {tzid:"W. Europe Standard Time"};
const t = (u, s, e, extra=[], p=w) => ev([["uid",u],["dtstamp","2031-01-01T00:00:00Z",{},"dt"],["dtstart",s,p,"dt"],["dtend",e,p,"dt"],...extra]);
fs.writeFileSync(out+"zone-of-the-file.ics", cal([
 t("w1","2031-01-15T09:00:00","2031-01-15T10:00:00",[["summary","Anna Maria Berg"]]),
 t("w2","2031-07-15T09:00:00","2031-07-15T10:00:00",[["summary","Anna Maria Berg"]]),
 t("w3","2031-03-30T03:30:00","2031-03-30T04:30:00",[["summary","Anna Maria Berg"]]),
 ev([["uid","d1"],["dtstamp","2031-01-01T00:00:00Z",{},"dt"],["dtstart","2031-02-01",{},"dt"],["summary","Closed"]]),
 t("x1","2031-02-02T09:00:00","2031-02-02T10:00:00",[["summary","Team lunch"]]),
 t("l1","2031-02-03T09:00:00","2031-02-03T09:00:00",[["summary","Anna Maria Berg"]]),
],[zone]));
fs.writeFileSync(out+"unknown-zone.ics", cal([t("u1","2031-01-15T09:00:00","2031-01-15T10:00:00",[["summary","Anna Maria Berg"]],{tzid:"Somewhere Standard Time"}), t("u2","2031-01-16T09:00:00","2031-01-16T10:00:00",[["summary","Anna Maria Berg"]],{tzid:"Europe/Vienna"})]));
const v={tzid:"Europe/Vienna"};
fs.writeFileSync(out+"repeating.ics", cal([
 t("r1","2031-01-14T09:00:00","2031-01-14T10:00:00",[["summary","Anna Maria Berg"],["rrule","FREQ=WEEKLY;INTERVAL=2;COUNT=5",{},"recur"],["exdate","2031-02-11T09:00:00",v,"dt"]],v),
 t("r1","2031-01-29T11:00:00","2031-01-29T12:00:00",[["summary","Anna Maria Berg"],["recurrence-id","2031-01-28T09:00:00",v,"dt"],["sequence",1]],v),
 t("r2","2031-01-02T08:00:00","2031-01-02T08:30:00",[["summary","Anna Maria Berg"],["rrule","FREQ=MONTHLY;BYDAY=1TH;UNTIL=20310501T060000Z",{},"recur"]],v),
],[]));
const g = new ICalCalendar({name:"x", timezone:"Europe/Vienna"}); g.timezone({name:"Europe/Vienna", generator: (n)=>tz.tzlib_get_ical_block(n)[0]});
g.createEvent({id:"g1", start:new Date("2031-05-05T07:00:00Z"), end:new Date("2031-05-05T08:00:00Z"), timezone:"Europe/Vienna", summary:"Anna Maria Berg", location:"Zimmer Süd"});
g.createEvent({id:"g2", start:new Date("2031-05-06T07:00:00Z"), allDay:true, summary:"Feiertag"});
fs.writeFileSync(out+"generated.ics", "\ufeff"+g.toString());
fs.writeFileSync(out+"latin1.ics", Buffer.from(g.toString(),"latin1"));
// vcards by vcf
const card = new vCard(); card.set("n","Müller;Jörg;Karl;Dr.;"); card.set("fn","Dr. Jörg Karl Müller"); card.set("tel","+43 660 1234567",{type:["CELL","PREF"]}); card.add("tel","0512 998877",{type:"HOME"}); card.set("email","joerg@firma.example"); card.set("bday","1971-03-09"); card.set("org","Firma; Abteilung"); card.set("note","Ruft gern an; abends");
for (const ver of ["3.0","4.0"]) fs.writeFileSync(out+`card-${ver}.vcf`, card.toString(ver)+"\r\n");
const org = new vCard(); org.set("fn","Hospital Ltd"); org.set("org","Hospital Ltd"); org.set("tel","0512 1");
fs.writeFileSync(out+"organisation.vcf", org.toString("3.0")+"\r\n");
