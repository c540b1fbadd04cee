<?xml version="1.0" encoding="utf-8"?>
<TS version="2.1" language="de" sourcelanguage="en">
 <context>
  <name>toreuma</name>
  <message>
   <source>A new part</source>
   <translation>Ein neues Teil</translation>
  </message>
  <message>
   <source>A usual part, with its few dimensions to type over</source>
   <translation>Ein übliches Teil, dessen wenige Maße man überschreibt</translation>
  </message>
  <message>
   <source>Above the axis: what is meant</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Across</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Add</source>
   <translation>Hinzufügen</translation>
  </message>
  <message>
   <source>An earlier run ended with unsaved changes to this job.</source>
   <translation>Ein früherer Lauf endete mit ungesicherten Änderungen an diesem Auftrag.</translation>
  </message>
  <message>
   <source>An entry of your own that begins like the one that is shown, under this name (Enter)</source>
   <translation>Ein eigener Eintrag unter diesem Namen, der wie der gezeigte beginnt (Eingabe)</translation>
  </message>
  <message>
   <source>And not</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Another window</source>
   <translation>Weiteres Fenster</translation>
  </message>
  <message>
   <source>Arc R</source>
   <translation>Bogen R</translation>
  </message>
  <message>
   <source>As the file says</source>
   <translation>Wie die Datei sagt</translation>
  </message>
  <message>
   <source>As they are</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>As usual</source>
   <translation>Wie üblich</translation>
  </message>
  <message>
   <source>At the cursor</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>At the far end</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Axial hole</source>
   <translation>Bohrung in der Achse</translation>
  </message>
  <message>
   <source>Back face</source>
   <translation>Rückseite</translation>
  </message>
  <message>
   <source>Bar</source>
   <translation>Stange</translation>
  </message>
  <message>
   <source>Bars and prices</source>
   <translation>Stangen und Preise</translation>
  </message>
  <message>
   <source>Begin</source>
   <translation>Beginnen</translation>
  </message>
  <message>
   <source>Begin with</source>
   <translation>Beginnen mit</translation>
  </message>
  <message>
   <source>Begin with a usual part</source>
   <translation>Mit einem üblichen Teil beginnen</translation>
  </message>
  <message>
   <source>Behind the shoulder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bench</source>
   <translation>Werkbank</translation>
  </message>
  <message>
   <source>Benches</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Better with a second, slim tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Blank</source>
   <translation>Rohteil</translation>
  </message>
  <message>
   <source>Blanks and edges</source>
   <translation>Rohteile und Kanten</translation>
  </message>
  <message>
   <source>Body</source>
   <translation>Körper</translation>
  </message>
  <message>
   <source>Both spindles at work</source>
   <translation>Beide Spindeln bei der Arbeit</translation>
  </message>
  <message>
   <source>Breaks the edge in front</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Breaks the edges</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Bush</source>
   <translation>Buchse</translation>
  </message>
  <message>
   <source>C axis</source>
   <translation>C-Achse</translation>
  </message>
  <message>
   <source>CNMG 120408, CCMT 21.51, PCLNR 2525 M12, A25R-PCLNR12</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>CNMG, Ø 8.5, 55°, R 0.4, rack, thread …</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Caliper</source>
   <translation>Messschieber</translation>
  </message>
  <message>
   <source>Centre</source>
   <translation>Spitze</translation>
  </message>
  <message>
   <source>Centre hole</source>
   <translation>Zentrierbohrung</translation>
  </message>
  <message>
   <source>Centres</source>
   <translation>Spitzen</translation>
  </message>
  <message>
   <source>Channels during the hand-over</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Chips break</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Clean, drawn or peeled</source>
   <translation>Blank, gezogen oder geschält</translation>
  </message>
  <message>
   <source>Close</source>
   <translation>Schließen</translation>
  </message>
  <message>
   <source>Close gaps up to  </source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Close the help (F1)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Close the window</source>
   <translation>Fenster schließen</translation>
  </message>
  <message>
   <source>Close these lines for good; F1 shows them again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Coarse (c)</source>
   <translation>Grob (c)</translation>
  </message>
  <message>
   <source>Code of an insert, holder or boring bar</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Command, operation, tool, surface, material, M12x1.75, 25 H7, CNMG120408</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Copy as a new job</source>
   <translation>Als neuen Auftrag kopieren</translation>
  </message>
  <message>
   <source>Copy operation, feature or hold</source>
   <translation>Arbeitsgang, Element oder Spannung kopieren</translation>
  </message>
  <message>
   <source>Corner</source>
   <translation>Kante</translation>
  </message>
  <message>
   <source>Cut back in front</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Cutting</source>
   <translation>Zerspanung</translation>
  </message>
  <message>
   <source>Depths</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dimension</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Disc</source>
   <translation>Scheibe</translation>
  </message>
  <message>
   <source>Double the operation</source>
   <translation>Arbeitsgang verdoppeln</translation>
  </message>
  <message>
   <source>Drawing of what the code names</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drawing to scale</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Drill on the axis</source>
   <translation>Bohren in der Achse</translation>
  </message>
  <message>
   <source>Drills a start hole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Dry</source>
   <translation>Trocken</translation>
  </message>
  <message>
   <source>Each part on its own</source>
   <translation>Jedes Teil für sich</translation>
  </message>
  <message>
   <source>Edit</source>
   <translation>Bearbeiten</translation>
  </message>
  <message>
   <source>Ends</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Entries of the shop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Export…</source>
   <translation>Ausgeben…</translation>
  </message>
  <message>
   <source>Face</source>
   <translation>Plandrehen</translation>
  </message>
  <message>
   <source>Face groove</source>
   <translation>Planeinstich</translation>
  </message>
  <message>
   <source>Factors on speed and feed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Features</source>
   <translation>Elemente</translation>
  </message>
  <message>
   <source>Feed the bar</source>
   <translation>Stange vorschieben</translation>
  </message>
  <message>
   <source>File</source>
   <translation>Datei</translation>
  </message>
  <message>
   <source>Find</source>
   <translation>Suchen</translation>
  </message>
  <message>
   <source>Findings</source>
   <translation>Befunde</translation>
  </message>
  <message>
   <source>Fine (f)</source>
   <translation>Fein (f)</translation>
  </message>
  <message>
   <source>Finish outside</source>
   <translation>Außen schlichten</translation>
  </message>
  <message>
   <source>Finish the bore</source>
   <translation>Bohrung schlichten</translation>
  </message>
  <message>
   <source>Finishes the walls</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>First hold</source>
   <translation>Erste Spannung</translation>
  </message>
  <message>
   <source>First or second side</source>
   <translation>Erste oder zweite Seite</translation>
  </message>
  <message>
   <source>First side</source>
   <translation>Erste Seite</translation>
  </message>
  <message>
   <source>Fit the picture</source>
   <translation>Bild einpassen</translation>
  </message>
  <message>
   <source>Flange</source>
   <translation>Flansch</translation>
  </message>
  <message>
   <source>Flats</source>
   <translation>Flächen</translation>
  </message>
  <message>
   <source>Form E: cylinder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Form F: cylinder and face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Found</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>From the back</source>
   <translation>Von hinten</translation>
  </message>
  <message>
   <source>From the front</source>
   <translation>Von vorn</translation>
  </message>
  <message>
   <source>Front face</source>
   <translation>Stirnseite</translation>
  </message>
  <message>
   <source>Gaps closed up to</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Gentle</source>
   <translation>Schonend</translation>
  </message>
  <message>
   <source>Groove</source>
   <translation>Einstich</translation>
  </message>
  <message>
   <source>Hand-over</source>
   <translation>Übergabe</translation>
  </message>
  <message>
   <source>Hard</source>
   <translation>Scharf</translation>
  </message>
  <message>
   <source>Hard cast skin</source>
   <translation>Harte Gusshaut</translation>
  </message>
  <message>
   <source>Hard, serrated</source>
   <translation>Hart, verzahnt</translation>
  </message>
  <message>
   <source>Help</source>
   <translation>Hilfe</translation>
  </message>
  <message>
   <source>Help on the thing in focus</source>
   <translation>Hilfe zum Gewählten</translation>
  </message>
  <message>
   <source>Hold</source>
   <translation>Spannung</translation>
  </message>
  <message>
   <source>Holder</source>
   <translation>Halter</translation>
  </message>
  <message>
   <source>Holders and bars</source>
   <translation>Halter und Bohrstangen</translation>
  </message>
  <message>
   <source>Holds</source>
   <translation>Spannmittel</translation>
  </message>
  <message>
   <source>Holes</source>
   <translation>Bohrungen</translation>
  </message>
  <message>
   <source>Holes beside the axis</source>
   <translation>Bohrungen neben der Achse</translation>
  </message>
  <message>
   <source>House rules</source>
   <translation>Hausregeln</translation>
  </message>
  <message>
   <source>How a part is typed</source>
   <translation>Wie man ein Teil schreibt</translation>
  </message>
  <message>
   <source>How arcs are written</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How boldly</source>
   <translation>Wie kräftig</translation>
  </message>
  <message>
   <source>How it is run</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>How much of every limit is used</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Import…</source>
   <translation>Einlesen…</translation>
  </message>
  <message>
   <source>In front of the shoulder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>In place of the part of the open job, which keeps its blank, tools and route</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>In the bore</source>
   <translation>In der Bohrung</translation>
  </message>
  <message>
   <source>Inches</source>
   <translation>Zoll</translation>
  </message>
  <message>
   <source>Inserts</source>
   <translation>Wendeplatten</translation>
  </message>
  <message>
   <source>Inside</source>
   <translation>Innen</translation>
  </message>
  <message>
   <source>Keep what was seen</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Kind</source>
   <translation>Art</translation>
  </message>
  <message>
   <source>Kinds of things in the shop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Knurl</source>
   <translation>Rändel</translation>
  </message>
  <message>
   <source>Ladder of speeds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Layers and unit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Least cost</source>
   <translation>Geringste Kosten</translation>
  </message>
  <message>
   <source>Leave it</source>
   <translation>Liegen lassen</translation>
  </message>
  <message>
   <source>Left hand</source>
   <translation>Links</translation>
  </message>
  <message>
   <source>Left out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Light or dark</source>
   <translation>Hell oder dunkel</translation>
  </message>
  <message>
   <source>Limits</source>
   <translation>Grenzen</translation>
  </message>
  <message>
   <source>Limits, the one used most first</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Live centre</source>
   <translation>Mitlaufende Spitze</translation>
  </message>
  <message>
   <source>Look for a name</source>
   <translation>Nach einem Namen suchen</translation>
  </message>
  <message>
   <source>Look for a name in the shop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Look for words in the help</source>
   <translation>In der Hilfe suchen</translation>
  </message>
  <message>
   <source>Looked at and left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Machine</source>
   <translation>Maschine</translation>
  </message>
  <message>
   <source>Machine of the new part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Machines</source>
   <translation>Maschinen</translation>
  </message>
  <message>
   <source>Main spindle</source>
   <translation>Hauptspindel</translation>
  </message>
  <message>
   <source>Material</source>
   <translation>Werkstoff</translation>
  </message>
  <message>
   <source>Material of the new part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Materials</source>
   <translation>Werkstoffe</translation>
  </message>
  <message>
   <source>Medium (m)</source>
   <translation>Mittel (m)</translation>
  </message>
  <message>
   <source>Mill a slot</source>
   <translation>Nut fräsen</translation>
  </message>
  <message>
   <source>Mill flats</source>
   <translation>Flächen fräsen</translation>
  </message>
  <message>
   <source>Millimetre or inch</source>
   <translation>Millimeter oder Zoll</translation>
  </message>
  <message>
   <source>Millimetre or inch (Ctrl+U)</source>
   <translation>Millimeter oder Zoll (Ctrl+U)</translation>
  </message>
  <message>
   <source>Millimetres</source>
   <translation>Millimeter</translation>
  </message>
  <message>
   <source>Money and time</source>
   <translation>Geld und Zeit</translation>
  </message>
  <message>
   <source>Most metal a minute</source>
   <translation>Meiste Späne je Minute</translation>
  </message>
  <message>
   <source>Name</source>
   <translation>Name</translation>
  </message>
  <message>
   <source>Name of a new entry like the one that is shown</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Name of a new one like this</source>
   <translation>Name eines neuen wie diesem</translation>
  </message>
  <message>
   <source>Name of the new part</source>
   <translation>Name des neuen Teils</translation>
  </message>
  <message>
   <source>Name of the operation</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>New</source>
   <translation>Neu</translation>
  </message>
  <message>
   <source>New part, last jobs</source>
   <translation>Neues Teil, letzte Aufträge</translation>
  </message>
  <message>
   <source>No operation yet. Add one below: facing first, then roughing.</source>
   <translation>Noch kein Arbeitsgang. Unten hinzufügen: erst plandrehen, dann schruppen.</translation>
  </message>
  <message>
   <source>Nobody watches</source>
   <translation>Niemand dabei</translation>
  </message>
  <message>
   <source>None</source>
   <translation>Keine</translation>
  </message>
  <message>
   <source>Normal</source>
   <translation>Normal</translation>
  </message>
  <message>
   <source>Not said yet</source>
   <translation>Noch nicht gesagt</translation>
  </message>
  <message>
   <source>Nothing stands against it: grip, reach, room, speeds, angles and parking hold.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nothing.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Nozzle</source>
   <translation>Düse</translation>
  </message>
  <message>
   <source>Nut</source>
   <translation>Mutter</translation>
  </message>
  <message>
   <source>Offsets</source>
   <translation>Korrekturen</translation>
  </message>
  <message>
   <source>On the rack</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>On this surface</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Only what does the chosen cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Open a job</source>
   <translation>Auftrag öffnen</translation>
  </message>
  <message>
   <source>Open a job…</source>
   <translation>Auftrag öffnen…</translation>
  </message>
  <message>
   <source>Open the program of the second end</source>
   <translation>Programm des zweiten Endes öffnen</translation>
  </message>
  <message>
   <source>Opens the root</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Operations</source>
   <translation>Arbeitsgänge</translation>
  </message>
  <message>
   <source>Or begin with a usual part and type over its dimensions:</source>
   <translation>Oder mit einem üblichen Teil beginnen und seine Maße überschreiben:</translation>
  </message>
  <message>
   <source>Outside</source>
   <translation>Außen</translation>
  </message>
  <message>
   <source>Outside, inside or features</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Part</source>
   <translation>Teil</translation>
  </message>
  <message>
   <source>Part off</source>
   <translation>Abstechen</translation>
  </message>
  <message>
   <source>Passes</source>
   <translation>Schnitte</translation>
  </message>
  <message>
   <source>Passes of the thread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Paste it into this job</source>
   <translation>In diesen Auftrag einfügen</translation>
  </message>
  <message>
   <source>Pecks</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Picture of a drawing behind the section</source>
   <translation>Bild einer Zeichnung hinter dem Schnitt</translation>
  </message>
  <message>
   <source>Play or stop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Play the program</source>
   <translation>Programm abspielen</translation>
  </message>
  <message>
   <source>Play the program (Space)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Plunges written</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Positions of the code</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Profile</source>
   <translation>Kontur</translation>
  </message>
  <message>
   <source>Program</source>
   <translation>Programm</translation>
  </message>
  <message>
   <source>Programs</source>
   <translation>Programme</translation>
  </message>
  <message>
   <source>Proof</source>
   <translation>Nachweis</translation>
  </message>
  <message>
   <source>Propose the whole route</source>
   <translation>Ganzen Arbeitsplan vorschlagen</translation>
  </message>
  <message>
   <source>Pulley</source>
   <translation>Riemenscheibe</translation>
  </message>
  <message>
   <source>Put into this job</source>
   <translation>In diesen Auftrag setzen</translation>
  </message>
  <message>
   <source>Put on my rack</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Put the slim tool in as well</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Ra unless marked</source>
   <translation>Ra, wo nichts steht</translation>
  </message>
  <message>
   <source>Read a drawing or model</source>
   <translation>Zeichnung oder Modell lesen</translation>
  </message>
  <message>
   <source>Read a drawing or model…</source>
   <translation>Zeichnung oder Modell lesen…</translation>
  </message>
  <message>
   <source>Read a list of tools</source>
   <translation>Werkzeugliste lesen</translation>
  </message>
  <message>
   <source>Read a list…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Read again</source>
   <translation>Noch einmal lesen</translation>
  </message>
  <message>
   <source>Read or write</source>
   <translation>Lesen oder schreiben</translation>
  </message>
  <message>
   <source>Ream on the axis</source>
   <translation>Reiben in der Achse</translation>
  </message>
  <message>
   <source>ReasonsPanel</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Redo</source>
   <translation>Wiederholen</translation>
  </message>
  <message>
   <source>Relief</source>
   <translation>Freistich</translation>
  </message>
  <message>
   <source>Ribbon of the whole run</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Right hand</source>
   <translation>Rechts</translation>
  </message>
  <message>
   <source>Ring</source>
   <translation>Ring</translation>
  </message>
  <message>
   <source>Rough outside</source>
   <translation>Außen schruppen</translation>
  </message>
  <message>
   <source>Rough the bore</source>
   <translation>Bohrung schruppen</translation>
  </message>
  <message>
   <source>Round it</source>
   <translation>Drumherum</translation>
  </message>
  <message>
   <source>Round the outside</source>
   <translation>Rund um außen</translation>
  </message>
  <message>
   <source>Route</source>
   <translation>Arbeitsplan</translation>
  </message>
  <message>
   <source>Safety of each cut, at its highest speed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save</source>
   <translation>Sichern</translation>
  </message>
  <message>
   <source>Save as</source>
   <translation>Sichern als</translation>
  </message>
  <message>
   <source>Save program…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Save the program</source>
   <translation>Programm sichern</translation>
  </message>
  <message>
   <source>Save what is shown as a picture</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Say the part in words</source>
   <translation>Das Teil in Worten</translation>
  </message>
  <message>
   <source>Scale from rolling</source>
   <translation>Walzzunder</translation>
  </message>
  <message>
   <source>Scale that picture</source>
   <translation>Dieses Bild maßstäblich machen</translation>
  </message>
  <message>
   <source>Scale the part</source>
   <translation>Teil skalieren</translation>
  </message>
  <message>
   <source>Schools</source>
   <translation>Schulen</translation>
  </message>
  <message>
   <source>Search the store</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Second hold</source>
   <translation>Zweite Spannung</translation>
  </message>
  <message>
   <source>Second side</source>
   <translation>Zweite Seite</translation>
  </message>
  <message>
   <source>Second spindle</source>
   <translation>Zweite Spindel</translation>
  </message>
  <message>
   <source>Second tool at once</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Seconds of the program in one second</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section of part and stock</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section of the whole machine</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Section or table of operations</source>
   <translation>Schnitt oder Tabelle der Arbeitsgänge</translation>
  </message>
  <message>
   <source>Select a station with a tool to see its sizes; put tools in from the list of what to cut.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Selected finding</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Settings</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shaft</source>
   <translation>Welle</translation>
  </message>
  <message>
   <source>Share of every limit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Shop</source>
   <translation>Werkstatt</translation>
  </message>
  <message>
   <source>Side of the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Side two of one part while side one of the next is cut, for parts in a row.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sizes</source>
   <translation>Maße</translation>
  </message>
  <message>
   <source>Sizes of the finished piece</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Sizes, by ISO 13399</source>
   <translation>Maße nach ISO 13399</translation>
  </message>
  <message>
   <source>Sleeve</source>
   <translation>Hülse</translation>
  </message>
  <message>
   <source>Slides</source>
   <translation>Schlitten</translation>
  </message>
  <message>
   <source>Slot</source>
   <translation>Nut</translation>
  </message>
  <message>
   <source>Slot or pocket</source>
   <translation>Nut oder Tasche</translation>
  </message>
  <message>
   <source>Soft, bored to size</source>
   <translation>Weich, ausgedreht</translation>
  </message>
  <message>
   <source>Somebody watches</source>
   <translation>Jemand dabei</translation>
  </message>
  <message>
   <source>Speed of playing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stations</source>
   <translation>Plätze</translation>
  </message>
  <message>
   <source>Stay where something is cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Stock</source>
   <translation>Rohteil</translation>
  </message>
  <message>
   <source>Stop</source>
   <translation>Halt</translation>
  </message>
  <message>
   <source>Stud</source>
   <translation>Stehbolzen</translation>
  </message>
  <message>
   <source>Supply</source>
   <translation>Bezug</translation>
  </message>
  <message>
   <source>Support</source>
   <translation>Abstützung</translation>
  </message>
  <message>
   <source>Surface as delivered</source>
   <translation>Oberfläche im Anlieferungszustand</translation>
  </message>
  <message>
   <source>Table of operations</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take as a new job</source>
   <translation>Als neuen Auftrag nehmen</translation>
  </message>
  <message>
   <source>Take as blank</source>
   <translation>Als Rohteil nehmen</translation>
  </message>
  <message>
   <source>Take care</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Take out</source>
   <translation>Herausnehmen</translation>
  </message>
  <message>
   <source>Take the tool out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tap on the axis</source>
   <translation>Gewinde bohren in der Achse</translation>
  </message>
  <message>
   <source>Taylor exponent m</source>
   <translation>Taylor-Exponent m</translation>
  </message>
  <message>
   <source>The one shown on the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The part in words</source>
   <translation>Das Teil in Worten</translation>
  </message>
  <message>
   <source>The profile becomes the casting or forging the part is cut from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The second spindle can take the part. Nothing is planned for it yet.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>The whole machine in space</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Thread</source>
   <translation>Gewinde</translation>
  </message>
  <message>
   <source>Thread run-out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Time ribbon</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>To look round: jobs of the Fennow Leat workshop</source>
   <translation>Zum Umsehen: Aufträge der Werkstatt Fennow Leat</translation>
  </message>
  <message>
   <source>Tool</source>
   <translation>Werkzeug</translation>
  </message>
  <message>
   <source>Tools</source>
   <translation>Werkzeuge</translation>
  </message>
  <message>
   <source>Tools in the store</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Tools, operations, numbers and order for all that is to be cut; undo takes it back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Transfer</source>
   <translation>Übergabe</translation>
  </message>
  <message>
   <source>Tried on this cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Try the operation in the cut lab</source>
   <translation>Arbeitsgang im Schnittlabor probieren</translation>
  </message>
  <message>
   <source>Turn the part end for end</source>
   <translation>Teil umdrehen</translation>
  </message>
  <message>
   <source>Turn to the other spindle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Turned round by hand</source>
   <translation>Von Hand umgespannt</translation>
  </message>
  <message>
   <source>Two back to back</source>
   <translation>Zwei Rücken an Rücken</translation>
  </message>
  <message>
   <source>Type sizes that can be: a number larger than nothing, with its unit if you like.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Type the code from the box, the holder or the bar; blanks and dashes do not matter.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Understood</source>
   <translation>Verstanden</translation>
  </message>
  <message>
   <source>Understood as features</source>
   <translation>Als Elemente verstanden</translation>
  </message>
  <message>
   <source>Undo</source>
   <translation>Rückgängig</translation>
  </message>
  <message>
   <source>Unit of the diameter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Unit of the drawing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Units</source>
   <translation>Einheiten</translation>
  </message>
  <message>
   <source>Units of the new part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Use in this job</source>
   <translation>In diesem Auftrag verwenden</translation>
  </message>
  <message>
   <source>Values of the material</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Very coarse (v)</source>
   <translation>Sehr grob (v)</translation>
  </message>
  <message>
   <source>View</source>
   <translation>Ansicht</translation>
  </message>
  <message>
   <source>What a drawing usually says and this part does not; leave what it really leaves open.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What asks for a tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>What it is</source>
   <translation>Was es ist</translation>
  </message>
  <message>
   <source>What was found</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Where its values come from</source>
   <translation>Woher seine Werte stammen</translation>
  </message>
  <message>
   <source>Where to begin</source>
   <translation>Wo man beginnt</translation>
  </message>
  <message>
   <source>Which cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Which program is shown</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Why this tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Wishes, stations or store</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>With a bar, a hold and the machine and material used last; the open job is left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write DXF or STEP</source>
   <translation>DXF oder STEP schreiben</translation>
  </message>
  <message>
   <source>Write my rack…</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Write the rack</source>
   <translation>Werkzeugliste schreiben</translation>
  </message>
  <message>
   <source>Written</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>Y to each side</source>
   <translation>Y nach jeder Seite</translation>
  </message>
  <message>
   <source>Young's modulus</source>
   <translation>E-Modul</translation>
  </message>
  <message>
   <source>Your last jobs</source>
   <translation>Ihre letzten Aufträge</translation>
  </message>
  <message>
   <source>Z end</source>
   <translation>Z Ende</translation>
  </message>
  <message>
   <source>a cutting edge</source>
   <translation>eine Schneide</translation>
  </message>
  <message>
   <source>a gripper draws at</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>above</source>
   <translation>oben</translation>
  </message>
  <message>
   <source>acceleration, mm/s²</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>across flats</source>
   <translation>Schlüsselweite</translation>
  </message>
  <message>
   <source>aim</source>
   <translation>Ziel</translation>
  </message>
  <message>
   <source>air_blast</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>allowance all over</source>
   <translation>Aufmaß überall</translation>
  </message>
  <message>
   <source>along the axis (RAA)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>an hour of a machine</source>
   <translation>eine Maschinenstunde</translation>
  </message>
  <message>
   <source>an hour of it</source>
   <translation>eine Stunde davon</translation>
  </message>
  <message>
   <source>any</source>
   <translation>beliebig</translation>
  </message>
  <message>
   <source>arcs</source>
   <translation>Bögen</translation>
  </message>
  <message>
   <source>as its like</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as steel</source>
   <translation>wie Stahl</translation>
  </message>
  <message>
   <source>as the machine wants</source>
   <translation>wie die Maschine will</translation>
  </message>
  <message>
   <source>as the part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>as usual</source>
   <translation>wie üblich</translation>
  </message>
  <message>
   <source>at Z</source>
   <translation>bei Z</translation>
  </message>
  <message>
   <source>axis to flat</source>
   <translation>Achse bis Fläche</translation>
  </message>
  <message>
   <source>back edge</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bar</source>
   <translation>Stange</translation>
  </message>
  <message>
   <source>bar drawn out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bar free behind spindle</source>
   <translation>Stange frei hinter der Spindel</translation>
  </message>
  <message>
   <source>bar gripper</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bar larger by</source>
   <translation>Stange größer um</translation>
  </message>
  <message>
   <source>bar stop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>below</source>
   <translation>unten</translation>
  </message>
  <message>
   <source>blade</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>blade for parting off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>body</source>
   <translation>Körper</translation>
  </message>
  <message>
   <source>body long</source>
   <translation>Körper lang</translation>
  </message>
  <message>
   <source>bore</source>
   <translation>Bohrung</translation>
  </message>
  <message>
   <source>bore deep</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>bore of the spindle</source>
   <translation>Spindelbohrung</translation>
  </message>
  <message>
   <source>bored deep</source>
   <translation>ausgedreht tief</translation>
  </message>
  <message>
   <source>bored to</source>
   <translation>ausgedreht auf</translation>
  </message>
  <message>
   <source>boring tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>both faces cut</source>
   <translation>beide Seiten schneiden</translation>
  </message>
  <message>
   <source>both turn at</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>both ways, into undercuts</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>brake holds</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>break chips every</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>break sharp edges</source>
   <translation>scharfe Kanten brechen</translation>
  </message>
  <message>
   <source>burrs off, jaws wiped</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by a stop</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by centre (I, K)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by code or by sizes</source>
   <translation>nach Code oder Maßen</translation>
  </message>
  <message>
   <source>by diameter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by going back a little</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by jaw</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by kind of jaw</source>
   <translation>nach Backenart</translation>
  </message>
  <message>
   <source>by pitch</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>by radius (R)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cap</source>
   <translation>Kappe</translation>
  </message>
  <message>
   <source>cap stands out</source>
   <translation>Kappe steht vor</translation>
  </message>
  <message>
   <source>carriers wait at Ø</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>caution</source>
   <translation>Vorsicht</translation>
  </message>
  <message>
   <source>changing an edge</source>
   <translation>Schneide wechseln</translation>
  </message>
  <message>
   <source>check_part</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>checked and measured</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>chucks, collets, mandrels</source>
   <translation>Futter, Spannzangen, Dorne</translation>
  </message>
  <message>
   <source>closes on</source>
   <translation>spannt</translation>
  </message>
  <message>
   <source>closest to the first</source>
   <translation>am nächsten an der ersten</translation>
  </message>
  <message>
   <source>coarse</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>code</source>
   <translation>Code</translation>
  </message>
  <message>
   <source>comes from</source>
   <translation>kommt von</translation>
  </message>
  <message>
   <source>computed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>conducts heat, W/(m K)</source>
   <translation>Wärmeleitung, W/(m K)</translation>
  </message>
  <message>
   <source>constant surface speed</source>
   <translation>konstante Schnittgeschwindigkeit</translation>
  </message>
  <message>
   <source>coolant</source>
   <translation>Kühlung</translation>
  </message>
  <message>
   <source>coolant through tools, bar</source>
   <translation>Kühlung durchs Werkzeug, bar</translation>
  </message>
  <message>
   <source>count</source>
   <translation>Anzahl</translation>
  </message>
  <message>
   <source>crossing, points raised (RGE)</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>currency</source>
   <translation>Währung</translation>
  </message>
  <message>
   <source>cut back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cut open</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>cutting force kc1.1</source>
   <translation>Schnittkraft kc1.1</translation>
  </message>
  <message>
   <source>deeper and shallower by turns</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>density, kg/m³</source>
   <translation>Dichte, kg/m³</translation>
  </message>
  <message>
   <source>depth</source>
   <translation>Tiefe</translation>
  </message>
  <message>
   <source>depth to the full diameter</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>diameter of the bar</source>
   <translation>Durchmesser der Stange</translation>
  </message>
  <message>
   <source>drawn back</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>drill</source>
   <translation>Bohrer</translation>
  </message>
  <message>
   <source>drills, blades, taps, mills</source>
   <translation>Bohrer, Klingen, Gewindebohrer, Fräser</translation>
  </message>
  <message>
   <source>driven tools</source>
   <translation>angetriebene Werkzeuge</translation>
  </message>
  <message>
   <source>driven up to</source>
   <translation>angetrieben bis</translation>
  </message>
  <message>
   <source>driven, along X</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>driven, along Z</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>dry</source>
   <translation>trocken</translation>
  </message>
  <message>
   <source>each peck</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>edges broken</source>
   <translation>Kanten gebrochen</translation>
  </message>
  <message>
   <source>edges left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>empty</source>
   <translation>leer</translation>
  </message>
  <message>
   <source>end mill</source>
   <translation>Fräser</translation>
  </message>
  <message>
   <source>engages in</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>equal chip area</source>
   <translation>gleicher Spanquerschnitt</translation>
  </message>
  <message>
   <source>equal depth</source>
   <translation>gleiche Zustellung</translation>
  </message>
  <message>
   <source>even</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>every bar goes through</source>
   <translation>jede Stange geht durch</translation>
  </message>
  <message>
   <source>every feed</source>
   <translation>jeder Vorschub</translation>
  </message>
  <message>
   <source>every speed</source>
   <translation>jede Drehzahl</translation>
  </message>
  <message>
   <source>expansion, µm/(m K)</source>
   <translation>Ausdehnung, µm/(m K)</translation>
  </message>
  <message>
   <source>exponent mc</source>
   <translation>Exponent mc</translation>
  </message>
  <message>
   <source>extension past the end</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>facing allowance</source>
   <translation>Planaufmaß</translation>
  </message>
  <message>
   <source>falls</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>falls into the chips</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>feature</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>feed to the grip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>fine</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>finishing</source>
   <translation>Schlichten</translation>
  </message>
  <message>
   <source>first at</source>
   <translation>erste bei</translation>
  </message>
  <message>
   <source>first peck</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>fit</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>fits mouths up to</source>
   <translation>passt in Senkungen bis</translation>
  </message>
  <message>
   <source>floating</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>flood</source>
   <translation>Schwall</translation>
  </message>
  <message>
   <source>floor</source>
   <translation>Grund</translation>
  </message>
  <message>
   <source>floor corners R</source>
   <translation>Ecken im Grund R</translation>
  </message>
  <message>
   <source>follows with</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>form tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>found over wires, to cut again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>friction</source>
   <translation>Reibung</translation>
  </message>
  <message>
   <source>from Z</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>from tool to tool</source>
   <translation>von Werkzeug zu Werkzeug</translation>
  </message>
  <message>
   <source>front</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>front edge at Z</source>
   <translation>vordere Kante bei Z</translation>
  </message>
  <message>
   <source>full depth</source>
   <translation>volle Tiefe</translation>
  </message>
  <message>
   <source>full thread</source>
   <translation>volles Gewinde</translation>
  </message>
  <message>
   <source>gang plate</source>
   <translation>Linearträger</translation>
  </message>
  <message>
   <source>general tolerance</source>
   <translation>Allgemeintoleranz</translation>
  </message>
  <message>
   <source>gentle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>gives up at</source>
   <translation>gibt nach bei</translation>
  </message>
  <message>
   <source>grade</source>
   <translation>Sorte</translation>
  </message>
  <message>
   <source>grip at rest, all jaws</source>
   <translation>Spannkraft im Stand, alle Backen</translation>
  </message>
  <message>
   <source>grip length</source>
   <translation>Spannlänge</translation>
  </message>
  <message>
   <source>grooving tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>group</source>
   <translation>Gruppe</translation>
  </message>
  <message>
   <source>hand</source>
   <translation>Seite</translation>
  </message>
  <message>
   <source>hard</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hard, serrated</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hardness, HB</source>
   <translation>Härte, HB</translation>
  </message>
  <message>
   <source>has errors</source>
   <translation>hat Fehler</translation>
  </message>
  <message>
   <source>held</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>hexagon</source>
   <translation>Sechskant</translation>
  </message>
  <message>
   <source>highest speed</source>
   <translation>höchste Drehzahl</translation>
  </message>
  <message>
   <source>holes</source>
   <translation>Bohrungen</translation>
  </message>
  <message>
   <source>how a job begins</source>
   <translation>wie ein Auftrag beginnt</translation>
  </message>
  <message>
   <source>how many jaws</source>
   <translation>wie viele Backen</translation>
  </message>
  <message>
   <source>in</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>in front of the chuck</source>
   <translation>vor dem Futter</translation>
  </message>
  <message>
   <source>inch, ft/min</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>into the shoulder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>is caught</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>is held by the pick-off</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>its centre of mass</source>
   <translation>ihr Schwerpunkt</translation>
  </message>
  <message>
   <source>jaws</source>
   <translation>Backen</translation>
  </message>
  <message>
   <source>jaws high</source>
   <translation>Backen hoch</translation>
  </message>
  <message>
   <source>jaws stand out</source>
   <translation>Backen stehen vor</translation>
  </message>
  <message>
   <source>kept free of the shoulder</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>kind</source>
   <translation>Art</translation>
  </message>
  <message>
   <source>knurling tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lathes and mill-turns</source>
   <translation>Drehmaschinen und Dreh-Fräszentren</translation>
  </message>
  <message>
   <source>least cost</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left for another cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left for another tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left for finishing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left for finishing the walls</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left for the last cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left on faces</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left on the face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>left on the walls for the last cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>length</source>
   <translation>Länge</translation>
  </message>
  <message>
   <source>length in a face</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>length of a bar</source>
   <translation>Länge einer Stange</translation>
  </message>
  <message>
   <source>length of full thread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>lost by gripping again</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>machine, an hour</source>
   <translation>Maschine, eine Stunde</translation>
  </message>
  <message>
   <source>main</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mandrel</source>
   <translation>Dorn</translation>
  </message>
  <message>
   <source>mass of one jaw</source>
   <translation>Masse einer Backe</translation>
  </message>
  <message>
   <source>material</source>
   <translation>Werkstoff</translation>
  </message>
  <message>
   <source>may run out by</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>measured</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>medium</source>
   <translation>mittel</translation>
  </message>
  <message>
   <source>middle off the axis</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>milling spindle</source>
   <translation>Frässpindel</translation>
  </message>
  <message>
   <source>mist</source>
   <translation>Nebel</translation>
  </message>
  <message>
   <source>mm, m/min</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>most metal a minute</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>mouth</source>
   <translation>Senkung</translation>
  </message>
  <message>
   <source>name</source>
   <translation>Name</translation>
  </message>
  <message>
   <source>never</source>
   <translation>nie</translation>
  </message>
  <message>
   <source>new part</source>
   <translation>neues Teil</translation>
  </message>
  <message>
   <source>new thread</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no</source>
   <translation>nein</translation>
  </message>
  <message>
   <source>no other tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>no route yet</source>
   <translation>noch kein Arbeitsplan</translation>
  </message>
  <message>
   <source>none</source>
   <translation>keine</translation>
  </message>
  <message>
   <source>normal</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>nose past the centre</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>not looked at</source>
   <translation>nicht betrachtet</translation>
  </message>
  <message>
   <source>not measured</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>not said</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>note</source>
   <translation>Bemerkung</translation>
  </message>
  <message>
   <source>offsets of two tools differ by</source>
   <translation>Korrekturen zweier Werkzeuge weichen ab um</translation>
  </message>
  <message>
   <source>only these feeds</source>
   <translation>nur diese Vorschübe</translation>
  </message>
  <message>
   <source>only these speeds</source>
   <translation>nur diese Drehzahlen</translation>
  </message>
  <message>
   <source>open</source>
   <translation>offen</translation>
  </message>
  <message>
   <source>open points</source>
   <translation>offene Punkte</translation>
  </message>
  <message>
   <source>or drop a file anywhere on this window.</source>
   <translation>oder eine Datei irgendwo auf dieses Fenster ziehen.</translation>
  </message>
  <message>
   <source>outer wall</source>
   <translation>äußere Wand</translation>
  </message>
  <message>
   <source>outside</source>
   <translation>außen</translation>
  </message>
  <message>
   <source>part-off cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>parting off</source>
   <translation>Abstechen</translation>
  </message>
  <message>
   <source>parts catcher</source>
   <translation>Teilefänger</translation>
  </message>
  <message>
   <source>parts in one run</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>parts in the batch</source>
   <translation>Teile im Los</translation>
  </message>
  <message>
   <source>passes</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>past a through hole</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>phase</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>pilot</source>
   <translation>Bohrung</translation>
  </message>
  <message>
   <source>pitch</source>
   <translation>Steigung</translation>
  </message>
  <message>
   <source>pitch circle</source>
   <translation>Teilkreis</translation>
  </message>
  <message>
   <source>place</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>planned</source>
   <translation>geplant</translation>
  </message>
  <message>
   <source>plate limit</source>
   <translation>Grenze am Schild</translation>
  </message>
  <message>
   <source>point angle</source>
   <translation>Spitzenwinkel</translation>
  </message>
  <message>
   <source>point long</source>
   <translation>Spitze lang</translation>
  </message>
  <message>
   <source>power at the tool</source>
   <translation>Leistung am Werkzeug</translation>
  </message>
  <message>
   <source>power by speed</source>
   <translation>Leistung über Drehzahl</translation>
  </message>
  <message>
   <source>price</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>price per kg</source>
   <translation>Preis je kg</translation>
  </message>
  <message>
   <source>program words</source>
   <translation>Programmsprache</translation>
  </message>
  <message>
   <source>proposed</source>
   <translation>vorgeschlagen</translation>
  </message>
  <message>
   <source>proved</source>
   <translation>nachgewiesen</translation>
  </message>
  <message>
   <source>push along Z</source>
   <translation>Druck längs Z</translation>
  </message>
  <message>
   <source>push at most</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>radius</source>
   <translation>Radius</translation>
  </message>
  <message>
   <source>radius of its corners</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>rapid across</source>
   <translation>Eilgang quer</translation>
  </message>
  <message>
   <source>rapid along</source>
   <translation>Eilgang längs</translation>
  </message>
  <message>
   <source>rapid ends before the grip</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>reaches in</source>
   <translation>reicht hinein</translation>
  </message>
  <message>
   <source>reaches the cut</source>
   <translation>kommt am Schnitt an</translation>
  </message>
  <message>
   <source>reamer</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>reference</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>reference point at Ø</source>
   <translation>Referenzpunkt bei Ø</translation>
  </message>
  <message>
   <source>right</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>rigid, in step with the spindle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>roughing</source>
   <translation>Schruppen</translation>
  </message>
  <message>
   <source>round</source>
   <translation>rund</translation>
  </message>
  <message>
   <source>round shanks up to</source>
   <translation>runde Schäfte bis</translation>
  </message>
  <message>
   <source>run</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>run-in</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>run-in and run-out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>runs out</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>saved</source>
   <translation>gesichert</translation>
  </message>
  <message>
   <source>sawn piece, length</source>
   <translation>gesägtes Stück, Länge</translation>
  </message>
  <message>
   <source>second</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>second spindle</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>settles before closing</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>shank</source>
   <translation>Schaft</translation>
  </message>
  <message>
   <source>shape</source>
   <translation>Form</translation>
  </message>
  <message>
   <source>share of feed kept</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>short rating</source>
   <translation>Kurzzeitleistung</translation>
  </message>
  <message>
   <source>shortest rest to hold</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>shoulder at Z</source>
   <translation>Schulter bei Z</translation>
  </message>
  <message>
   <source>shrinking</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>size</source>
   <translation>Maß</translation>
  </message>
  <message>
   <source>skin goes deep</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>slower feed below Ø</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>soft, bored</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>somebody watches</source>
   <translation>jemand dabei</translation>
  </message>
  <message>
   <source>space</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>specific heat, J/(kg K)</source>
   <translation>spezifische Wärme, J/(kg K)</translation>
  </message>
  <message>
   <source>speed limit</source>
   <translation>Drehzahlgrenze</translation>
  </message>
  <message>
   <source>speed on its plate</source>
   <translation>Drehzahl am Schild</translation>
  </message>
  <message>
   <source>speeds up by</source>
   <translation>beschleunigt um</translation>
  </message>
  <message>
   <source>spoken in the next window that is opened (Ctrl+Shift+W)</source>
   <translation>gesprochen im nächsten Fenster, das geöffnet wird (Ctrl+Shift+W)</translation>
  </message>
  <message>
   <source>spring passes</source>
   <translation>Leerschnitte</translation>
  </message>
  <message>
   <source>square</source>
   <translation>vierkant</translation>
  </message>
  <message>
   <source>stance</source>
   <translation>Haltung</translation>
  </message>
  <message>
   <source>starts at Z</source>
   <translation>beginnt bei Z</translation>
  </message>
  <message>
   <source>stations</source>
   <translation>Plätze</translation>
  </message>
  <message>
   <source>steady rest</source>
   <translation>Lünette</translation>
  </message>
  <message>
   <source>steady speed below Ø</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>step</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stick-out</source>
   <translation>Auskragung</translation>
  </message>
  <message>
   <source>still</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stock.</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stop inside</source>
   <translation>Anschlag innen</translation>
  </message>
  <message>
   <source>stretch ends at Z</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>stretch starts at Z</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>tailstock</source>
   <translation>Reitstock</translation>
  </message>
  <message>
   <source>takes</source>
   <translation>spannt</translation>
  </message>
  <message>
   <source>takes from</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>takes up to</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>tap</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>the blank</source>
   <translation>das Rohteil</translation>
  </message>
  <message>
   <source>the house rules'</source>
   <translation>die Hausregeln</translation>
  </message>
  <message>
   <source>thread</source>
   <translation>Gewinde</translation>
  </message>
  <message>
   <source>thread infeed</source>
   <translation>Gewindezustellung</translation>
  </message>
  <message>
   <source>thread passes</source>
   <translation>Gewindeschnitte</translation>
  </message>
  <message>
   <source>threading tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>through</source>
   <translation>durch</translation>
  </message>
  <message>
   <source>to Z</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>to open, and to close</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>to the next cut</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>today</source>
   <translation>heute</translation>
  </message>
  <message>
   <source>tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>tool change</source>
   <translation>Werkzeugwechsel</translation>
  </message>
  <message>
   <source>tool for pull turning</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>tool material</source>
   <translation>Schneidstoff</translation>
  </message>
  <message>
   <source>tools keep clear by</source>
   <translation>Werkzeuge halten Abstand</translation>
  </message>
  <message>
   <source>torque at the tool</source>
   <translation>Drehmoment am Werkzeug</translation>
  </message>
  <message>
   <source>toward the chuck only</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>travel</source>
   <translation>Weg</translation>
  </message>
  <message>
   <source>travel across</source>
   <translation>Weg quer</translation>
  </message>
  <message>
   <source>travel along</source>
   <translation>Weg längs</translation>
  </message>
  <message>
   <source>tube</source>
   <translation>Rohr</translation>
  </message>
  <message>
   <source>turned round and tightened</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>turning tool</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>turns it stands at the ends</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>turret</source>
   <translation>Revolver</translation>
  </message>
  <message>
   <source>typed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>typed depths</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unknown</source>
   <translation>unbekannt</translation>
  </message>
  <message>
   <source>unknown: no loss of grip computed</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>unknown: not judged</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>usual</source>
   <translation>üblich</translation>
  </message>
  <message>
   <source>very coarse</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>walls lean</source>
   <translation>Wände geneigt</translation>
  </message>
  <message>
   <source>wanted Ra</source>
   <translation>gewünschtes Ra</translation>
  </message>
  <message>
   <source>wanted safety</source>
   <translation>gewünschte Sicherheit</translation>
  </message>
  <message>
   <source>what lies in the rack</source>
   <translation>was im Lager liegt</translation>
  </message>
  <message>
   <source>what parts are made of</source>
   <translation>woraus Teile bestehen</translation>
  </message>
  <message>
   <source>what supports the front</source>
   <translation>was vorn abstützt</translation>
  </message>
  <message>
   <source>where the hole is deep</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>why</source>
   <translation>warum</translation>
  </message>
  <message>
   <source>width</source>
   <translation>Breite</translation>
  </message>
  <message>
   <source>width at the surface</source>
   <translation>Breite an der Oberfläche</translation>
  </message>
  <message>
   <source>with corners</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>work-hardens</source>
   <translation>verfestigt sich</translation>
  </message>
  <message>
   <source>yes</source>
   <translation>ja</translation>
  </message>
  <message>
   <source>Ø end</source>
   <translation>Ø Ende</translation>
  </message>
 </context>
</TS>
