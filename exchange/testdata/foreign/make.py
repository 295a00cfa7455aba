import quopri, csv, io, json
out="./"
def qp(s,cs): return quopri.encodestring(s.encode(cs),quotetabs=False).decode().replace("\n","\r\n")
lines=["BEGIN:VCARD","VERSION:2.1",
 "N;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:"+qp("Müller-Lüdenscheidt;Jörg Ägidius","utf-8"),
 "FN;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:"+qp("Jörg Ägidius Müller-Lüdenscheidt, sehr langer Name, der über eine Zeile geht","utf-8"),
 "TEL;CELL;PREF:+43 660 1234567","TEL;HOME;VOICE:0512 998877","EMAIL;INTERNET:joerg@firma.example","BDAY:19710309","END:VCARD",
 "BEGIN:VCARD","VERSION:2.1","N;CHARSET=ISO-8859-1;ENCODING=QUOTED-PRINTABLE:"+qp("Straße;Zoë","latin-1"),"FN;ENCODING=QUOTED-PRINTABLE;CHARSET=ISO-8859-1:"+qp("Zoë Straße","latin-1"),"TEL;WORK:0512 5","END:VCARD",""]
open(out+"card-2.1-quoted.vcf","wb").write("\r\n".join(lines).encode("ascii"))
l2="BEGIN:VCARD\r\nVERSION:2.1\r\nN:Groß;Käthe\r\nFN:Käthe Groß\r\nTEL;CELL:0660 1\r\nEND:VCARD\r\n"
open(out+"card-2.1-latin1.vcf","wb").write(l2.encode("latin-1"))
rows=[["Vorname","Nachname","geboren","Größe","Telefon"],["Käthe","Groß","09.03.1971","168,5","+43 660 1"],["Jörg","Öller","1.12.1980","",""]]
def table(**kw):
    b=io.StringIO(); csv.writer(b,**kw).writerows(rows); return b.getvalue()
open(out+"clients-excel.csv","wb").write(("sep=;\r\n"+table(delimiter=";")).encode("utf-8-sig"))
open(out+"clients-tab-utf16.txt","wb").write(table(dialect="excel-tab").encode("utf-16"))
