<?xml version="1.0" encoding="utf-8"?>
<TS version="2.1" language="de" sourcelanguage="en">
 <context>
  <name>toreuma</name>
  <message>
   <source>A degree beside the flank</source>
   <translation>Ein Grad neben der Flanke</translation>
  </message>
  <message>
   <source>A job as the program was written, not saved yet</source>
   <translation>Ein Auftrag, wie das Programm geschrieben ist, noch nicht gesichert</translation>
  </message>
  <message>
   <source>A new part</source>
   <translation>Ein neues Teil</translation>
  </message>
  <message>
   <source>A picture</source>
   <translation>Ein Bild</translation>
  </message>
  <message>
   <source>A usual part, with its few dimensions to type over</source>
   <translation>Ein übliches Teil, dessen wenige Maße man überschreibt</translation>
  </message>
  <message>
   <source>Above the axis: what is meant</source>
   <translation>Über der Achse: was gemeint ist</translation>
  </message>
  <message>
   <source>Above: the moves, click one for its line. Below: the metal at the line</source>
   <translation>Oben: die Wege, ein Klick führt zur Zeile. Unten: das Metall an der Zeile</translation>
  </message>
  <message>
   <source>Across</source>
   <translation>Quer</translation>
  </message>
  <message>
   <source>Add</source>
   <translation>Hinzufügen</translation>
  </message>
  <message>
   <source>Add an element behind the selected one</source>
   <translation>Ein Element hinter dem gewählten einfügen</translation>
  </message>
  <message>
   <source>Add an operation</source>
   <translation>Einen Arbeitsgang einfügen</translation>
  </message>
  <message>
   <source>Against the open job</source>
   <translation>Gegen den offenen Auftrag</translation>
  </message>
  <message>
   <source>Aim</source>
   <translation>Ziel</translation>
  </message>
  <message>
   <source>Air blast</source>
   <translation>Blasluft</translation>
  </message>
  <message>
   <source>Along the flank</source>
   <translation>Längs der Flanke</translation>
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
   <translation>Und nicht</translation>
  </message>
  <message>
   <source>Angles matched</source>
   <translation>Winkel abgestimmt</translation>
  </message>
  <message>
   <source>Another window</source>
   <translation>Weiteres Fenster</translation>
  </message>
  <message>
   <source>Another window has taken it up.</source>
   <translation>Ein anderes Fenster hat sie aufgenommen.</translation>
  </message>
  <message>
   <source>Arc R</source>
   <translation>Bogen R</translation>
  </message>
  <message>
   <source>Arcs with centre I, K</source>
   <translation>Bögen mit Mittelpunkt I, K</translation>
  </message>
  <message>
   <source>As the file says</source>
   <translation>Wie die Datei sagt</translation>
  </message>
  <message>
   <source>As the job is read</source>
   <translation>Wie der Auftrag gelesen wird</translation>
  </message>
  <message>
   <source>As they are</source>
   <translation>Wie sie sind</translation>
  </message>
  <message>
   <source>As usual</source>
   <translation>Wie üblich</translation>
  </message>
  <message>
   <source>As written</source>
   <translation>Wie geschrieben</translation>
  </message>
  <message>
   <source>At the cursor</source>
   <translation>An der Zeitmarke</translation>
  </message>
  <message>
   <source>At the cut</source>
   <translation>Am Schnitt</translation>
  </message>
  <message>
   <source>At the far end</source>
   <translation>Am hinteren Ende</translation>
  </message>
  <message>
   <source>Axial hole</source>
   <translation>Bohrung in der Achse</translation>
  </message>
  <message>
   <source>Axis of the offset</source>
   <translation>Achse der Korrektur</translation>
  </message>
  <message>
   <source>Back end</source>
   <translation>Hinteres Ende</translation>
  </message>
  <message>
   <source>Back face</source>
   <translation>Rückseite</translation>
  </message>
  <message>
   <source>Back to the picture</source>
   <translation>Zurück zum Bild</translation>
  </message>
  <message>
   <source>Bar</source>
   <translation>Stange</translation>
  </message>
  <message>
   <source>Bar drawn out, then cut off</source>
   <translation>Stange herausgezogen, dann abgestochen</translation>
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
   <source>Begin a run</source>
   <translation>Lauf beginnen</translation>
  </message>
  <message>
   <source>Begin the next one from it</source>
   <translation>Den nächsten damit beginnen</translation>
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
   <translation>Hinter dem Bund</translation>
  </message>
  <message>
   <source>Being proved</source>
   <translation>Wird geprüft</translation>
  </message>
  <message>
   <source>Being read; the open job stays as it is.</source>
   <translation>Wird gelesen; der offene Auftrag bleibt, wie er ist.</translation>
  </message>
  <message>
   <source>Bench</source>
   <translation>Werkbank</translation>
  </message>
  <message>
   <source>Benches</source>
   <translation>Werkbänke</translation>
  </message>
  <message>
   <source>Better with a second, slim tool</source>
   <translation>Besser mit einem zweiten, schlanken Werkzeug</translation>
  </message>
  <message>
   <source>Blank</source>
   <translation>Rohteil</translation>
  </message>
  <message>
   <source>Blank in one line</source>
   <translation>Rohteil in einer Zeile</translation>
  </message>
  <message>
   <source>Blanks</source>
   <translation>Rohteile</translation>
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
   <source>Bore through</source>
   <translation>Bohrung durch</translation>
  </message>
  <message>
   <source>Both do the same, move by move.</source>
   <translation>Beide tun dasselbe, Weg für Weg.</translation>
  </message>
  <message>
   <source>Both spindles at work</source>
   <translation>Beide Spindeln bei der Arbeit</translation>
  </message>
  <message>
   <source>Breaks the edge in front</source>
   <translation>Bricht die vordere Kante</translation>
  </message>
  <message>
   <source>Breaks the edges</source>
   <translation>Bricht die Kanten</translation>
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
   <translation>CNMG, Ø 8.5, 55°, R 0.4, Lager, Gewinde …</translation>
  </message>
  <message>
   <source>Caliper</source>
   <translation>Messschieber</translation>
  </message>
  <message>
   <source>Came out</source>
   <translation>Herausgenommen</translation>
  </message>
  <message>
   <source>Came out early</source>
   <translation>Vorzeitig heraus</translation>
  </message>
  <message>
   <source>Casting or forging</source>
   <translation>Guss- oder Schmiedeteil</translation>
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
   <source>Change a speed</source>
   <translation>Eine Drehzahl ändern</translation>
  </message>
  <message>
   <source>Changed by hand</source>
   <translation>Von Hand geändert</translation>
  </message>
  <message>
   <source>Changed here</source>
   <translation>Hier geändert</translation>
  </message>
  <message>
   <source>Changed in the file</source>
   <translation>In der Datei geändert</translation>
  </message>
  <message>
   <source>Channels during the hand-over</source>
   <translation>Kanäle während der Übergabe</translation>
  </message>
  <message>
   <source>Chip</source>
   <translation>Span</translation>
  </message>
  <message>
   <source>Chips break</source>
   <translation>Späne brechen</translation>
  </message>
  <message>
   <source>Choose the column of the code first</source>
   <translation>Zuerst die Spalte der Bezeichnung wählen</translation>
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
   <translation>Lücken schließen bis  </translation>
  </message>
  <message>
   <source>Close the help (F1)</source>
   <translation>Hilfe schließen (F1)</translation>
  </message>
  <message>
   <source>Close the window</source>
   <translation>Fenster schließen</translation>
  </message>
  <message>
   <source>Close these lines for good; F1 shows them again</source>
   <translation>Diese Zeilen für immer schließen; F1 zeigt sie wieder</translation>
  </message>
  <message>
   <source>Coarse (c)</source>
   <translation>Grob (c)</translation>
  </message>
  <message>
   <source>Code of an insert, holder or boring bar</source>
   <translation>Bezeichnung einer Platte, eines Halters oder einer Bohrstange</translation>
  </message>
  <message>
   <source>Command, operation, tool, surface, material, M12x1.75, 25 H7, CNMG120408</source>
   <translation>Befehl, Arbeitsgang, Werkzeug, Fläche, Werkstoff, M12x1.75, 25 H7, CNMG120408</translation>
  </message>
  <message>
   <source>Compare with</source>
   <translation>Vergleichen mit</translation>
  </message>
  <message>
   <source>Computed starting points: the machine's manual, the chuck's plate and trained staff come first.</source>
   <translation>Berechnete Startwerte: Handbuch der Maschine, Schild des Futters und geschultes Personal gehen vor.</translation>
  </message>
  <message>
   <source>Coolant</source>
   <translation>Kühlmittel</translation>
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
   <translation>Vorn zurückgeschnitten</translation>
  </message>
  <message>
   <source>Cut off between both</source>
   <translation>Zwischen beiden abgestochen</translation>
  </message>
  <message>
   <source>Cut on</source>
   <translation>Weiter schneiden</translation>
  </message>
  <message>
   <source>Cutting</source>
   <translation>Zerspanung</translation>
  </message>
  <message>
   <source>Depths</source>
   <translation>Tiefen</translation>
  </message>
  <message>
   <source>Differences by move</source>
   <translation>Unterschiede Weg für Weg</translation>
  </message>
  <message>
   <source>Dimension</source>
   <translation>Maß</translation>
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
   <translation>Zeichnung dessen, was die Bezeichnung nennt</translation>
  </message>
  <message>
   <source>Drawing to scale</source>
   <translation>Maßstäbliche Zeichnung</translation>
  </message>
  <message>
   <source>Drill on the axis</source>
   <translation>Bohren in der Achse</translation>
  </message>
  <message>
   <source>Drills a start hole</source>
   <translation>Bohrt ein Startloch</translation>
  </message>
  <message>
   <source>Drop it</source>
   <translation>Verwerfen</translation>
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
   <source>Edges that are in</source>
   <translation>Schneiden in der Maschine</translation>
  </message>
  <message>
   <source>Edges that came out</source>
   <translation>Herausgenommene Schneiden</translation>
  </message>
  <message>
   <source>Edit</source>
   <translation>Bearbeiten</translation>
  </message>
  <message>
   <source>End the simulated one</source>
   <translation>Simuliertes beenden</translation>
  </message>
  <message>
   <source>Ends</source>
   <translation>Enden</translation>
  </message>
  <message>
   <source>Entries of the shop</source>
   <translation>Einträge der Werkstatt</translation>
  </message>
  <message>
   <source>Errors drawn on the part</source>
   <translation>Abweichungen am Teil</translation>
  </message>
  <message>
   <source>Every move written</source>
   <translation>Jeder Weg ausgeschrieben</translation>
  </message>
  <message>
   <source>Every word was understood, and nothing met what it must not.</source>
   <translation>Jedes Wort wurde verstanden, und nichts traf, was es nicht treffen darf.</translation>
  </message>
  <message>
   <source>Everything the drawing asks for</source>
   <translation>Alles, was die Zeichnung verlangt</translation>
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
   <translation>Faktoren auf Drehzahl und Vorschub</translation>
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
   <source>Finished</source>
   <translation>Fertig</translation>
  </message>
  <message>
   <source>Finished but for</source>
   <translation>Fertig bis auf</translation>
  </message>
  <message>
   <source>Finishes the walls</source>
   <translation>Schlichtet die Wände</translation>
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
   <translation>Form E: Zylinder</translation>
  </message>
  <message>
   <source>Form F: cylinder and face</source>
   <translation>Form F: Zylinder und Planfläche</translation>
  </message>
  <message>
   <source>Found</source>
   <translation>Gefunden</translation>
  </message>
  <message>
   <source>Frame</source>
   <translation>Rahmen</translation>
  </message>
  <message>
   <source>From both flanks in turn</source>
   <translation>Wechselseitig von beiden Flanken</translation>
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
   <source>Front end</source>
   <translation>Vorderes Ende</translation>
  </message>
  <message>
   <source>Front face</source>
   <translation>Stirnseite</translation>
  </message>
  <message>
   <source>Gaps closed up to</source>
   <translation>Lücken geschlossen bis</translation>
  </message>
  <message>
   <source>General tolerance</source>
   <translation>Allgemeintoleranz</translation>
  </message>
  <message>
   <source>Gentle</source>
   <translation>Schonend</translation>
  </message>
  <message>
   <source>Grip</source>
   <translation>Spannung</translation>
  </message>
  <message>
   <source>Grips on</source>
   <translation>Greift auf</translation>
  </message>
  <message>
   <source>Groove</source>
   <translation>Einstich</translation>
  </message>
  <message>
   <source>Guide</source>
   <translation>Führung</translation>
  </message>
  <message>
   <source>Hand</source>
   <translation>Hand</translation>
  </message>
  <message>
   <source>Hand on</source>
   <translation>Weitergeben</translation>
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
   <source>Has a profile of its own, read from a file.</source>
   <translation>Hat eine eigene Kontur, aus einer Datei gelesen.</translation>
  </message>
  <message>
   <source>Heard</source>
   <translation>Gehört</translation>
  </message>
  <message>
   <source>Held</source>
   <translation>Gehalten</translation>
  </message>
  <message>
   <source>Held in</source>
   <translation>Gespannt in</translation>
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
   <source>Hexagon bar</source>
   <translation>Sechskantstange</translation>
  </message>
  <message>
   <source>Hold</source>
   <translation>Spannung</translation>
  </message>
  <message>
   <source>Hold against the job</source>
   <translation>Gegen den Auftrag halten</translation>
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
   <source>Holes in the face</source>
   <translation>Bohrungen in der Planfläche</translation>
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
   <translation>Wie Bögen geschrieben werden</translation>
  </message>
  <message>
   <source>How boldly</source>
   <translation>Wie kräftig</translation>
  </message>
  <message>
   <source>How it is read</source>
   <translation>Wie es gelesen wird</translation>
  </message>
  <message>
   <source>How it is run</source>
   <translation>Wie es gefahren wird</translation>
  </message>
  <message>
   <source>How much of every limit is used</source>
   <translation>Wie weit jede Grenze ausgeschöpft ist</translation>
  </message>
  <message>
   <source>Import…</source>
   <translation>Einlesen…</translation>
  </message>
  <message>
   <source>In front of the shoulder</source>
   <translation>Vor dem Bund</translation>
  </message>
  <message>
   <source>In place of the part of the open job, which keeps its blank, tools and route</source>
   <translation>Anstelle des Teils im offenen Auftrag; Rohteil, Werkzeuge und Plan bleiben</translation>
  </message>
  <message>
   <source>In space</source>
   <translation>Im Raum</translation>
  </message>
  <message>
   <source>In the bore</source>
   <translation>In der Bohrung</translation>
  </message>
  <message>
   <source>In the machine</source>
   <translation>In der Maschine</translation>
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
   <source>Inspection list</source>
   <translation>Prüfliste</translation>
  </message>
  <message>
   <source>It cannot be read; it is kept under its name with ~ after it.</source>
   <translation>Sie ist nicht lesbar; sie bleibt unter ihrem Namen mit ~ dahinter.</translation>
  </message>
  <message>
   <source>It happened</source>
   <translation>Ist geschehen</translation>
  </message>
  <message>
   <source>It is over</source>
   <translation>Lauf ist zu Ende</translation>
  </message>
  <message>
   <source>It was not worn yet: its life is not counted</source>
   <translation>Sie war noch nicht verschlissen: ihre Standzeit zählt nicht</translation>
  </message>
  <message>
   <source>It was read</source>
   <translation>Wurde abgelesen</translation>
  </message>
  <message>
   <source>It was set</source>
   <translation>Wurde eingestellt</translation>
  </message>
  <message>
   <source>It will not show:\n</source>
   <translation>Es wird nicht zeigen:\n</translation>
  </message>
  <message>
   <source>Jaw fronts</source>
   <translation>Backenvorderkanten</translation>
  </message>
  <message>
   <source>Jaws</source>
   <translation>Backen</translation>
  </message>
  <message>
   <source>Job</source>
   <translation>Auftrag</translation>
  </message>
  <message>
   <source>Keep both</source>
   <translation>Beide behalten</translation>
  </message>
  <message>
   <source>Keep what is here</source>
   <translation>Behalten, was hier steht</translation>
  </message>
  <message>
   <source>Keep what was seen</source>
   <translation>Behalten, was gesehen wurde</translation>
  </message>
  <message>
   <source>Kind</source>
   <translation>Art</translation>
  </message>
  <message>
   <source>Kinds of things in the shop</source>
   <translation>Arten von Dingen in der Werkstatt</translation>
  </message>
  <message>
   <source>Known by</source>
   <translation>Kennzeichen</translation>
  </message>
  <message>
   <source>Knurl</source>
   <translation>Rändel</translation>
  </message>
  <message>
   <source>Ladder of speeds</source>
   <translation>Drehzahlstufen</translation>
  </message>
  <message>
   <source>Later</source>
   <translation>Später</translation>
  </message>
  <message>
   <source>Layers and unit</source>
   <translation>Ebenen und Einheit</translation>
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
   <source>Leave it out</source>
   <translation>Weglassen</translation>
  </message>
  <message>
   <source>Left hand</source>
   <translation>Links</translation>
  </message>
  <message>
   <source>Left out</source>
   <translation>Weggelassen</translation>
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
   <translation>Grenzen, die am weitesten ausgeschöpfte zuerst</translation>
  </message>
  <message>
   <source>Listen</source>
   <translation>Zuhören</translation>
  </message>
  <message>
   <source>Listen no more</source>
   <translation>Nicht mehr zuhören</translation>
  </message>
  <message>
   <source>Live centre</source>
   <translation>Mitlaufende Spitze</translation>
  </message>
  <message>
   <source>Log</source>
   <translation>Logbuch</translation>
  </message>
  <message>
   <source>Look at it</source>
   <translation>Ansehen</translation>
  </message>
  <message>
   <source>Look for a name</source>
   <translation>Nach einem Namen suchen</translation>
  </message>
  <message>
   <source>Look for a name in the shop</source>
   <translation>Einen Namen in der Werkstatt suchen</translation>
  </message>
  <message>
   <source>Look for words in the help</source>
   <translation>In der Hilfe suchen</translation>
  </message>
  <message>
   <source>Looked at and left</source>
   <translation>Angesehen und so belassen</translation>
  </message>
  <message>
   <source>Machine</source>
   <translation>Maschine</translation>
  </message>
  <message>
   <source>Machine it runs on</source>
   <translation>Maschine, auf der es läuft</translation>
  </message>
  <message>
   <source>Machine of the new part</source>
   <translation>Maschine des neuen Teils</translation>
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
   <translation>Werkstoff des neuen Teils</translation>
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
   <source>Move one tool</source>
   <translation>Ein Werkzeug verschieben</translation>
  </message>
  <message>
   <source>Name</source>
   <translation>Name</translation>
  </message>
  <message>
   <source>Name of a new entry like the one that is shown</source>
   <translation>Name eines neuen Eintrags, der wie der gezeigte beginnt</translation>
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
   <translation>Name des Arbeitsgangs</translation>
  </message>
  <message>
   <source>New</source>
   <translation>Neu</translation>
  </message>
  <message>
   <source>New part</source>
   <translation>Neues Teil</translation>
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
   <source>No run yet: begin one when the job goes to the machine.</source>
   <translation>Noch kein Lauf: beginnen, wenn der Auftrag an die Maschine geht.</translation>
  </message>
  <message>
   <source>No size of this run was measured yet</source>
   <translation>In diesem Lauf wurde noch kein Maß gemessen</translation>
  </message>
  <message>
   <source>No tool of rack or catalogue does this.</source>
   <translation>Kein Werkzeug aus Lager oder Katalog kann das.</translation>
  </message>
  <message>
   <source>Nobody has run this job yet.</source>
   <translation>Diesen Auftrag hat noch niemand gefahren.</translation>
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
   <source>Not finished</source>
   <translation>Nicht fertig</translation>
  </message>
  <message>
   <source>Not now</source>
   <translation>Jetzt nicht</translation>
  </message>
  <message>
   <source>Not said yet</source>
   <translation>Noch nicht gesagt</translation>
  </message>
  <message>
   <source>Not understood; write it as: 2 180 160</source>
   <translation>Nicht verstanden; schreiben Sie: 2 180 160</translation>
  </message>
  <message>
   <source>Not understood; write it as: 2 Z-0.25</source>
   <translation>Nicht verstanden; schreiben Sie: 2 Z-0.25</translation>
  </message>
  <message>
   <source>Not wanted</source>
   <translation>Nicht gewünscht</translation>
  </message>
  <message>
   <source>Note</source>
   <translation>Notiz</translation>
  </message>
  <message>
   <source>Note on the edge</source>
   <translation>Notiz zur Schneide</translation>
  </message>
  <message>
   <source>Nothing stands against it: grip, reach, room, speeds, angles and parking hold.</source>
   <translation>Nichts spricht dagegen: Spannung, Reichweite, Platz, Drehzahlen, Winkel und Parkstellung stimmen.</translation>
  </message>
  <message>
   <source>Nothing.</source>
   <translation>Nichts.</translation>
  </message>
  <message>
   <source>Nothing: what was found is within what it is uncertain by.</source>
   <translation>Nichts: was gefunden wurde, liegt in seiner Unsicherheit.</translation>
  </message>
  <message>
   <source>Nozzle</source>
   <translation>Düse</translation>
  </message>
  <message>
   <source>Numbers only where needed</source>
   <translation>Nummern nur wo nötig</translation>
  </message>
  <message>
   <source>Nut</source>
   <translation>Mutter</translation>
  </message>
  <message>
   <source>Offset</source>
   <translation>Korrektur</translation>
  </message>
  <message>
   <source>Offsets</source>
   <translation>Korrekturen</translation>
  </message>
  <message>
   <source>On the rack</source>
   <translation>Im Lager</translation>
  </message>
  <message>
   <source>On this surface</source>
   <translation>Auf dieser Fläche</translation>
  </message>
  <message>
   <source>Only a note</source>
   <translation>Nur eine Notiz</translation>
  </message>
  <message>
   <source>Only what does the chosen cut</source>
   <translation>Nur, was den gewählten Schnitt kann</translation>
  </message>
  <message>
   <source>Open</source>
   <translation>Öffnen</translation>
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
   <source>Open beside the file</source>
   <translation>Neben der Datei öffnen</translation>
  </message>
  <message>
   <source>Open it</source>
   <translation>Öffnen</translation>
  </message>
  <message>
   <source>Open the program of the second end</source>
   <translation>Programm des zweiten Endes öffnen</translation>
  </message>
  <message>
   <source>Opens the root</source>
   <translation>Öffnet den Grund</translation>
  </message>
  <message>
   <source>Operation</source>
   <translation>Arbeitsgang</translation>
  </message>
  <message>
   <source>Operation whose power was read</source>
   <translation>Arbeitsgang, dessen Leistung abgelesen wurde</translation>
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
   <source>Other jaws</source>
   <translation>Andere Backen</translation>
  </message>
  <message>
   <source>Outside</source>
   <translation>Außen</translation>
  </message>
  <message>
   <source>Outside, inside or features</source>
   <translation>Außen, innen oder Formelemente</translation>
  </message>
  <message>
   <source>Pages are being made.</source>
   <translation>Die Seiten entstehen.</translation>
  </message>
  <message>
   <source>Pages as they are printed</source>
   <translation>Seiten, wie sie gedruckt werden</translation>
  </message>
  <message>
   <source>Paper</source>
   <translation>Papier</translation>
  </message>
  <message>
   <source>Papers</source>
   <translation>Papiere</translation>
  </message>
  <message>
   <source>Part</source>
   <translation>Teil</translation>
  </message>
  <message>
   <source>Part asked for</source>
   <translation>Teil abgefragt</translation>
  </message>
  <message>
   <source>Part off</source>
   <translation>Abstechen</translation>
  </message>
  <message>
   <source>Part that was measured</source>
   <translation>Gemessenes Teil</translation>
  </message>
  <message>
   <source>Passes</source>
   <translation>Schnitte</translation>
  </message>
  <message>
   <source>Passes of the thread</source>
   <translation>Schnitte des Gewindes</translation>
  </message>
  <message>
   <source>Paste it into this job</source>
   <translation>In diesen Auftrag einfügen</translation>
  </message>
  <message>
   <source>Pecks</source>
   <translation>Bohrhübe</translation>
  </message>
  <message>
   <source>Picture of a drawing behind the section</source>
   <translation>Bild einer Zeichnung hinter dem Schnitt</translation>
  </message>
  <message>
   <source>Picture of the note</source>
   <translation>Bild der Notiz</translation>
  </message>
  <message>
   <source>Picture…</source>
   <translation>Bild…</translation>
  </message>
  <message>
   <source>Pins</source>
   <translation>Stifte</translation>
  </message>
  <message>
   <source>Play or stop</source>
   <translation>Abspielen oder anhalten</translation>
  </message>
  <message>
   <source>Play the program</source>
   <translation>Programm abspielen</translation>
  </message>
  <message>
   <source>Play the program (Space)</source>
   <translation>Das Programm abspielen (Leertaste)</translation>
  </message>
  <message>
   <source>Play to the next fault</source>
   <translation>Bis zum nächsten Fehler abspielen</translation>
  </message>
  <message>
   <source>Plunge and turn, layer by layer</source>
   <translation>Stechen und Drehen, Lage für Lage</translation>
  </message>
  <message>
   <source>Plunges from the middle, breaking chips</source>
   <translation>Einstiche von der Mitte, mit Spanbrechen</translation>
  </message>
  <message>
   <source>Plunges written</source>
   <translation>Einstiche geschrieben</translation>
  </message>
  <message>
   <source>Positions of the code</source>
   <translation>Stellen der Bezeichnung</translation>
  </message>
  <message>
   <source>Power of the spindle in</source>
   <translation>Leistung der Spindel in</translation>
  </message>
  <message>
   <source>Power that was read</source>
   <translation>Abgelesene Leistung</translation>
  </message>
  <message>
   <source>Press its button</source>
   <translation>Taste drücken</translation>
  </message>
  <message>
   <source>Print…</source>
   <translation>Drucken…</translation>
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
   <source>Program as a text</source>
   <translation>Programm als Text</translation>
  </message>
  <message>
   <source>Program text</source>
   <translation>Programmtext</translation>
  </message>
  <message>
   <source>Programs</source>
   <translation>Programme</translation>
  </message>
  <message>
   <source>Program…</source>
   <translation>Programm…</translation>
  </message>
  <message>
   <source>Proof</source>
   <translation>Nachweis</translation>
  </message>
  <message>
   <source>Take the best so far</source>
   <translation>Das beste bis hier nehmen</translation>
  </message>
  <message>
   <source>Stop looking</source>
   <translation>Suche beenden</translation>
  </message>
  <message>
   <source>Stop looking for a route</source>
   <translation>Suche nach einem Arbeitsplan beenden</translation>
  </message>
  <message>
   <source>Found so far, the best first; still looking</source>
   <translation>Bisher gefunden, das Beste zuerst; es wird weiter gesucht</translation>
  </message>
  <message>
   <source>Look no further: the route at the top of the list, with undo</source>
   <translation>Nicht weiter suchen: der oberste Arbeitsplan der Liste, widerrufbar</translation>
  </message>
  <message>
   <source>begins behind its front edge</source>
   <translation>beginnt hinter der vorderen Kante</translation>
  </message>
  <message>
   <source>opens by</source>
   <translation>öffnet um</translation>
  </message>
  <message>
   <source>by hand, all the way</source>
   <translation>von Hand, ganz</translation>
  </message>
  <message>
   <source>on diameter: a wider head does not go in</source>
   <translation>im Durchmesser: ein breiterer Kopf geht nicht hinein</translation>
  </message>
  <message>
   <source>Propose the whole route</source>
   <translation>Ganzen Arbeitsplan vorschlagen</translation>
  </message>
  <message>
   <source>Prove out on</source>
   <translation>Einfahren auf</translation>
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
   <translation>In mein Lager legen</translation>
  </message>
  <message>
   <source>Put the slim tool in as well</source>
   <translation>Das schlanke Werkzeug auch einsetzen</translation>
  </message>
  <message>
   <source>Ra measured, marks …</source>
   <translation>Ra gemessen, Marken …</translation>
  </message>
  <message>
   <source>Ra unless marked</source>
   <translation>Ra, wo nichts steht</translation>
  </message>
  <message>
   <source>Rack</source>
   <translation>Lager</translation>
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
   <translation>Liste einlesen…</translation>
  </message>
  <message>
   <source>Read a program</source>
   <translation>Programm lesen</translation>
  </message>
  <message>
   <source>Read again</source>
   <translation>Noch einmal lesen</translation>
  </message>
  <message>
   <source>Read it again</source>
   <translation>Neu lesen</translation>
  </message>
  <message>
   <source>Read or write</source>
   <translation>Lesen oder schreiben</translation>
  </message>
  <message>
   <source>Read the list</source>
   <translation>Liste einlesen</translation>
  </message>
  <message>
   <source>Reading the program back and cutting it.</source>
   <translation>Das Programm wird zurückgelesen und geschnitten.</translation>
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
   <source>Replace with</source>
   <translation>Ersetzen durch</translation>
  </message>
  <message>
   <source>Rest</source>
   <translation>Lünette</translation>
  </message>
  <message>
   <source>Rests</source>
   <translation>Lünetten</translation>
  </message>
  <message>
   <source>Ribbon of the whole run</source>
   <translation>Zeitband des ganzen Laufs</translation>
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
   <source>Rollers</source>
   <translation>Rollen</translation>
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
   <source>Round bar</source>
   <translation>Rundstange</translation>
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
   <source>Run the program up to the place where something goes wrong and stay there (Ctrl+Shift+Space)</source>
   <translation>Das Programm bis zu der Stelle laufen lassen, an der etwas schiefgeht, und dort bleiben (Ctrl+Shift+Space)</translation>
  </message>
  <message>
   <source>Runs of this job</source>
   <translation>Läufe dieses Auftrags</translation>
  </message>
  <message>
   <source>Safety of each cut, at its highest speed</source>
   <translation>Sicherheit jedes Schnitts bei seiner höchsten Drehzahl</translation>
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
   <source>Save as HTML…</source>
   <translation>Als HTML speichern…</translation>
  </message>
  <message>
   <source>Save as PDF…</source>
   <translation>Als PDF speichern…</translation>
  </message>
  <message>
   <source>Save mine over it</source>
   <translation>Meine darüber sichern</translation>
  </message>
  <message>
   <source>Save program</source>
   <translation>Programm speichern</translation>
  </message>
  <message>
   <source>Save program…</source>
   <translation>Programm sichern…</translation>
  </message>
  <message>
   <source>Save the program</source>
   <translation>Programm sichern</translation>
  </message>
  <message>
   <source>Save the sheets</source>
   <translation>Blätter speichern</translation>
  </message>
  <message>
   <source>Save what is shown as a picture</source>
   <translation>Das Gezeigte als Bild sichern</translation>
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
   <source>Search in the program</source>
   <translation>Im Programm suchen</translation>
  </message>
  <message>
   <source>Search the store</source>
   <translation>Den Bestand durchsuchen</translation>
  </message>
  <message>
   <source>Search, or a line number</source>
   <translation>Suchen, oder eine Zeilennummer</translation>
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
   <translation>Zweites Werkzeug zugleich</translation>
  </message>
  <message>
   <source>Seconds of the program in one second</source>
   <translation>Sekunden des Programms je Sekunde</translation>
  </message>
  <message>
   <source>Section of part and stock</source>
   <translation>Schnitt durch Teil und Rohteil</translation>
  </message>
  <message>
   <source>Section of the whole machine</source>
   <translation>Schnitt durch die ganze Maschine</translation>
  </message>
  <message>
   <source>Section or table of operations</source>
   <translation>Schnitt oder Tabelle der Arbeitsgänge</translation>
  </message>
  <message>
   <source>Select a station with a tool to see its sizes; put tools in from the list of what to cut.</source>
   <translation>Einen Platz mit Werkzeug wählen, um seine Maße zu sehen; Werkzeuge aus der Liste der Arbeiten einsetzen.</translation>
  </message>
  <message>
   <source>Select an operation to see its numbers and the reason behind each.</source>
   <translation>Einen Arbeitsgang wählen, um seine Zahlen und ihre Gründe zu sehen.</translation>
  </message>
  <message>
   <source>Selected</source>
   <translation>Ausgewählt</translation>
  </message>
  <message>
   <source>Selected finding</source>
   <translation>Gewählter Befund</translation>
  </message>
  <message>
   <source>Settings</source>
   <translation>Einstellungen</translation>
  </message>
  <message>
   <source>Shaft</source>
   <translation>Welle</translation>
  </message>
  <message>
   <source>Share of every limit</source>
   <translation>Anteil jeder Grenze</translation>
  </message>
  <message>
   <source>Sheets</source>
   <translation>Blätter</translation>
  </message>
  <message>
   <source>Shop</source>
   <translation>Werkstatt</translation>
  </message>
  <message>
   <source>Side of the part</source>
   <translation>Seite des Teils</translation>
  </message>
  <message>
   <source>Side two of one part while side one of the next is cut, for parts in a row.</source>
   <translation>Seite zwei eines Teils, während Seite eins des nächsten gedreht wird, für Teile in Folge.</translation>
  </message>
  <message>
   <source>Sizes</source>
   <translation>Maße</translation>
  </message>
  <message>
   <source>Sizes of the finished piece</source>
   <translation>Maße des fertigen Teils</translation>
  </message>
  <message>
   <source>Sizes that were measured</source>
   <translation>Gemessene Maße</translation>
  </message>
  <message>
   <source>Sizes, by ISO 13399</source>
   <translation>Maße nach ISO 13399</translation>
  </message>
  <message>
   <source>Skin</source>
   <translation>Kruste</translation>
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
   <source>Something of Toreuma failed</source>
   <translation>Etwas in Toreuma ist fehlgeschlagen</translation>
  </message>
  <message>
   <source>Speed of playing</source>
   <translation>Abspielgeschwindigkeit</translation>
  </message>
  <message>
   <source>Spindle standing</source>
   <translation>Spindel steht</translation>
  </message>
  <message>
   <source>Square bar</source>
   <translation>Vierkantstange</translation>
  </message>
  <message>
   <source>Square to the axis</source>
   <translation>Quer zur Achse</translation>
  </message>
  <message>
   <source>Stance</source>
   <translation>Haltung</translation>
  </message>
  <message>
   <source>Start a simulated one</source>
   <translation>Simuliertes starten</translation>
  </message>
  <message>
   <source>Station, axis and way: 2 Z-0.25</source>
   <translation>Station, Achse und Weg: 2 Z-0.25</translation>
  </message>
  <message>
   <source>Station, speed now, speed then: 2 180 160</source>
   <translation>Station, Drehzahl jetzt, dann: 2 180 160</translation>
  </message>
  <message>
   <source>Stations</source>
   <translation>Plätze</translation>
  </message>
  <message>
   <source>Stay where something is cut</source>
   <translation>Stehen bleiben, wo etwas geschnitten wird</translation>
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
   <source>Straight plunges</source>
   <translation>Gerade Einstiche</translation>
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
   <translation>Tabelle der Arbeitsgänge</translation>
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
   <translation>Vorsicht</translation>
  </message>
  <message>
   <source>Take it off this list</source>
   <translation>Aus dieser Liste nehmen</translation>
  </message>
  <message>
   <source>Take it up</source>
   <translation>Aufnehmen</translation>
  </message>
  <message>
   <source>Take out</source>
   <translation>Herausnehmen</translation>
  </message>
  <message>
   <source>Take the plan's</source>
   <translation>Die des Plans nehmen</translation>
  </message>
  <message>
   <source>Take the selected element out</source>
   <translation>Das gewählte Element herausnehmen</translation>
  </message>
  <message>
   <source>Take the tool out</source>
   <translation>Das Werkzeug herausnehmen</translation>
  </message>
  <message>
   <source>Take theirs</source>
   <translation>Ihre nehmen</translation>
  </message>
  <message>
   <source>Taken up where it was left; it is not saved yet.</source>
   <translation>Dort aufgenommen, wo sie verlassen wurde; noch nicht gesichert.</translation>
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
   <source>That line is another one by now.</source>
   <translation>Diese Zeile ist inzwischen eine andere.</translation>
  </message>
  <message>
   <source>The best {} of {} ways found</source>
   <translation>Die besten {} von {} gefundenen Wegen</translation>
  </message>
  <message>
   <source>The first hold lets go</source>
   <translation>Die erste Spannung öffnet</translation>
  </message>
  <message>
   <source>The job goes to the machine as it stands; sizes are entered from then on</source>
   <translation>Der Auftrag geht, wie er steht, an die Maschine; von da an werden Maße eingetragen</translation>
  </message>
  <message>
   <source>The job is being proved; sheets name the state of the proof, so they follow it.</source>
   <translation>Der Auftrag wird geprüft; die Blätter nennen den Stand, darum folgen sie danach.</translation>
  </message>
  <message>
   <source>The job is kept</source>
   <translation>Der Auftrag ist aufgehoben</translation>
  </message>
  <message>
   <source>The one shown on the part</source>
   <translation>Der am Teil gezeigte</translation>
  </message>
  <message>
   <source>The part</source>
   <translation>Das Teil</translation>
  </message>
  <message>
   <source>The part in words</source>
   <translation>Das Teil in Worten</translation>
  </message>
  <message>
   <source>The profile becomes the casting or forging the part is cut from</source>
   <translation>Die Kontur wird zum Guss- oder Schmiedeteil, aus dem das Teil entsteht</translation>
  </message>
  <message>
   <source>The program as it stands at the machine: next time it is held against ours</source>
   <translation>Das Programm, wie es an der Maschine steht: beim nächsten Mal wird es mit unserem verglichen</translation>
  </message>
  <message>
   <source>The program from the machine</source>
   <translation>Das Programm von der Maschine</translation>
  </message>
  <message>
   <source>The real material</source>
   <translation>Der wirkliche Werkstoff</translation>
  </message>
  <message>
   <source>The run is being opened.</source>
   <translation>Der Lauf wird geöffnet.</translation>
  </message>
  <message>
   <source>The second spindle can take the part. Nothing is planned for it yet.</source>
   <translation>Die zweite Spindel kann das Teil übernehmen. Noch ist dort nichts geplant.</translation>
  </message>
  <message>
   <source>The second spindle holds the part while it is cut off</source>
   <translation>Die Gegenspindel hält das Teil beim Abstechen</translation>
  </message>
  <message>
   <source>The shop's own constants</source>
   <translation>Konstanten der Werkstatt</translation>
  </message>
  <message>
   <source>The usual sizes are offered until you say what lies in your rack.</source>
   <translation>Die üblichen Größen werden angeboten, bis du sagst, was in deinem Lager liegt.</translation>
  </message>
  <message>
   <source>The whole machine in space</source>
   <translation>Die ganze Maschine im Raum</translation>
  </message>
  <message>
   <source>Thread</source>
   <translation>Gewinde</translation>
  </message>
  <message>
   <source>Thread run-out</source>
   <translation>Gewindeauslauf</translation>
  </message>
  <message>
   <source>Time ribbon</source>
   <translation>Zeitband</translation>
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
   <source>Tool whose offset was set</source>
   <translation>Werkzeug, dessen Korrektur eingestellt wurde</translation>
  </message>
  <message>
   <source>Tools</source>
   <translation>Werkzeuge</translation>
  </message>
  <message>
   <source>Tools in order of use</source>
   <translation>Werkzeuge in ihrer Reihenfolge</translation>
  </message>
  <message>
   <source>Tools in the store</source>
   <translation>Werkzeuge im Bestand</translation>
  </message>
  <message>
   <source>Tools, operations, numbers and order for all that is to be cut; undo takes it back</source>
   <translation>Werkzeuge, Arbeitsgänge, Zahlen und Reihenfolge für alles Nötige; Rückgängig nimmt es zurück</translation>
  </message>
  <message>
   <source>Transfer</source>
   <translation>Übergabe</translation>
  </message>
  <message>
   <source>Tried on this cut</source>
   <translation>An diesem Schnitt versucht</translation>
  </message>
  <message>
   <source>Try the operation in the cut lab</source>
   <translation>Arbeitsgang im Schnittlabor probieren</translation>
  </message>
  <message>
   <source>Trying every tool that goes into the machine on the part …</source>
   <translation>Jedes Werkzeug, das in die Maschine passt, wird am Teil versucht …</translation>
  </message>
  <message>
   <source>Tube, or cored blank</source>
   <translation>Rohr oder vorgebohrtes Rohteil</translation>
  </message>
  <message>
   <source>Turn the part end for end</source>
   <translation>Teil umdrehen</translation>
  </message>
  <message>
   <source>Turn to the other spindle</source>
   <translation>Zur anderen Spindel wechseln</translation>
  </message>
  <message>
   <source>Turned or changed</source>
   <translation>Gedreht oder gewechselt</translation>
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
   <source>Type a name for it first, below the list.</source>
   <translation>Zuerst unter der Liste einen Namen eingeben.</translation>
  </message>
  <message>
   <source>Type sizes that can be: a number larger than nothing, with its unit if you like.</source>
   <translation>Mögliche Maße eingeben: eine Zahl größer als null, auf Wunsch mit Einheit.</translation>
  </message>
  <message>
   <source>Type the code from the box below; a table comes in with Import, or by dropping it.</source>
   <translation>Die Bezeichnung von der Schachtel unten eingeben; eine Tabelle kommt mit Einlesen oder durch Ablegen herein.</translation>
  </message>
  <message>
   <source>Type the code from the box, the holder or the bar; blanks and dashes do not matter.</source>
   <translation>Die Bezeichnung von Schachtel, Halter oder Stange eingeben; Leerzeichen und Striche sind gleich.</translation>
  </message>
  <message>
   <source>Type what was found; what the sizes have in common is told here.</source>
   <translation>Gefundene Maße eintippen; was sie gemeinsam haben, steht dann hier.</translation>
  </message>
  <message>
   <source>UNPROVED stands across every page.</source>
   <translation>UNPROVED steht quer über jeder Seite.</translation>
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
   <translation>Einheit des Durchmessers</translation>
  </message>
  <message>
   <source>Unit of the drawing</source>
   <translation>Einheit der Zeichnung</translation>
  </message>
  <message>
   <source>Units</source>
   <translation>Einheiten</translation>
  </message>
  <message>
   <source>Units of the new part</source>
   <translation>Einheit des neuen Teils</translation>
  </message>
  <message>
   <source>Unsafe</source>
   <translation>Unsicher</translation>
  </message>
  <message>
   <source>Use in this job</source>
   <translation>In diesem Auftrag verwenden</translation>
  </message>
  <message>
   <source>Values of the material</source>
   <translation>Werte des Werkstoffs</translation>
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
   <source>Watched</source>
   <translation>Beaufsichtigt</translation>
  </message>
  <message>
   <source>What a drawing usually says and this part does not; leave what it really leaves open.</source>
   <translation>Was eine Zeichnung sonst sagt und dieses Teil noch nicht; was sie wirklich offen lässt, bleibt offen.</translation>
  </message>
  <message>
   <source>What asks for a tool</source>
   <translation>Was ein Werkzeug verlangt</translation>
  </message>
  <message>
   <source>What comes of it, inches</source>
   <translation>Was herauskommt, Zoll</translation>
  </message>
  <message>
   <source>What happened</source>
   <translation>Was geschah</translation>
  </message>
  <message>
   <source>What is changed here is not saved; both are compared when it is.</source>
   <translation>Was hier geändert ist, ist nicht gesichert; beim Sichern wird beides verglichen.</translation>
  </message>
  <message>
   <source>What is here is saved under a dated name beside it</source>
   <translation>Was hier steht, wird unter einem Namen mit Datum daneben gesichert</translation>
  </message>
  <message>
   <source>What is kept, and when</source>
   <translation>Was aufgehoben wird, und wann</translation>
  </message>
  <message>
   <source>What it is</source>
   <translation>Was es ist</translation>
  </message>
  <message>
   <source>What it rests on</source>
   <translation>Worauf es beruht</translation>
  </message>
  <message>
   <source>What stands in the file is kept under its name with ~ after it</source>
   <translation>Was in der Datei steht, bleibt unter ihrem Namen mit ~ dahinter</translation>
  </message>
  <message>
   <source>What the blank gives</source>
   <translation>Was das Rohteil hergibt</translation>
  </message>
  <message>
   <source>What the hand-over comes to</source>
   <translation>Was bei der Übergabe herauskommt</translation>
  </message>
  <message>
   <source>What the hold allows</source>
   <translation>Was die Spannung erlaubt</translation>
  </message>
  <message>
   <source>What the last run taught</source>
   <translation>Was der letzte Lauf lehrte</translation>
  </message>
  <message>
   <source>What the program cuts</source>
   <translation>Was das Programm schneidet</translation>
  </message>
  <message>
   <source>What the proof measured</source>
   <translation>Was der Nachweis gemessen hat</translation>
  </message>
  <message>
   <source>What the simulated gauge is to read</source>
   <translation>Was das simulierte Messmittel anzeigen soll</translation>
  </message>
  <message>
   <source>What to set</source>
   <translation>Was einzustellen ist</translation>
  </message>
  <message>
   <source>What turning it round comes to</source>
   <translation>Was beim Umdrehen herauskommt</translation>
  </message>
  <message>
   <source>What was added to the offset</source>
   <translation>Um was die Korrektur geändert wurde</translation>
  </message>
  <message>
   <source>What was found</source>
   <translation>Was gefunden wurde</translation>
  </message>
  <message>
   <source>What was found; Enter goes on</source>
   <translation>Was gefunden wurde; Enter geht weiter</translation>
  </message>
  <message>
   <source>What was heard</source>
   <translation>Was gehört wurde</translation>
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
   <source>Which column is which</source>
   <translation>Welche Spalte welche ist</translation>
  </message>
  <message>
   <source>Which cut</source>
   <translation>Welcher Schnitt</translation>
  </message>
  <message>
   <source>Which program is shown</source>
   <translation>Welches Programm gezeigt wird</translation>
  </message>
  <message>
   <source>Whole route</source>
   <translation>Ganzer Arbeitsplan</translation>
  </message>
  <message>
   <source>Whole run</source>
   <translation>Ganzer Lauf</translation>
  </message>
  <message>
   <source>Why</source>
   <translation>Warum</translation>
  </message>
  <message>
   <source>Why this tool</source>
   <translation>Warum dieses Werkzeug</translation>
  </message>
  <message>
   <source>Width of the wear</source>
   <translation>Verschleißbreite</translation>
  </message>
  <message>
   <source>Wishes, stations or store</source>
   <translation>Wünsche, Plätze oder Bestand</translation>
  </message>
  <message>
   <source>With a bar, a hold and the machine and material used last; the open job is left</source>
   <translation>Mit Stange, Spannung und der zuletzt benutzten Maschine und dem Werkstoff; der offene Auftrag wird verlassen</translation>
  </message>
  <message>
   <source>Words</source>
   <translation>Wörter</translation>
  </message>
  <message>
   <source>Words of the program</source>
   <translation>Wörter des Programms</translation>
  </message>
  <message>
   <source>Work on it as a text of its own</source>
   <translation>Als eigenen Text bearbeiten</translation>
  </message>
  <message>
   <source>Work on the text</source>
   <translation>Den Text bearbeiten</translation>
  </message>
  <message>
   <source>Work that was not saved</source>
   <translation>Nicht gesicherte Arbeit</translation>
  </message>
  <message>
   <source>Work that was not saved when a window ended is kept</source>
   <translation>Arbeit, die beim Ende eines Fensters nicht gesichert war, ist aufgehoben</translation>
  </message>
  <message>
   <source>Wrench flats</source>
   <translation>Schlüsselflächen</translation>
  </message>
  <message>
   <source>Write DXF or STEP</source>
   <translation>DXF oder STEP schreiben</translation>
  </message>
  <message>
   <source>Write a list…</source>
   <translation>Liste schreiben…</translation>
  </message>
  <message>
   <source>Write into the log that this was set at the machine; nothing is sent to it</source>
   <translation>Im Logbuch festhalten, dass dies an der Maschine eingestellt wurde; an sie wird nichts gesendet</translation>
  </message>
  <message>
   <source>Write the rack</source>
   <translation>Werkzeugliste schreiben</translation>
  </message>
  <message>
   <source>Written</source>
   <translation>Geschrieben</translation>
  </message>
  <message>
   <source>Written into the log.</source>
   <translation>Ins Logbuch geschrieben.</translation>
  </message>
  <message>
   <source>Y to each side</source>
   <translation>Y nach jeder Seite</translation>
  </message>
  <message>
   <source>finish found over theory</source>
   <translation>Rauheit gefunden zu Theorie</translation>
  </message>
  <message>
   <source>1 as feed and nose leave it</source>
   <translation>1: wie Vorschub und Ecke sie lassen</translation>
  </message>
  <message>
   <source>found over theory</source>
   <translation>gefunden zu Theorie</translation>
  </message>
  <message>
   <source>finish to expect</source>
   <translation>zu erwartende Rauheit</translation>
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
   <source>Z 0 of the second side</source>
   <translation>Z 0 der zweiten Seite</translation>
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
   <source>a cycle for each pass</source>
   <translation>ein Zyklus je Schnitt</translation>
  </message>
  <message>
   <source>a degree beside the flank</source>
   <translation>ein Grad neben der Flanke</translation>
  </message>
  <message>
   <source>a gripper draws at</source>
   <translation>ein Greifer zieht mit</translation>
  </message>
  <message>
   <source>a picture</source>
   <translation>ein Bild</translation>
  </message>
  <message>
   <source>a program</source>
   <translation>ein Programm</translation>
  </message>
  <message>
   <source>above</source>
   <translation>oben</translation>
  </message>
  <message>
   <source>acceleration, mm/s²</source>
   <translation>Beschleunigung, mm/s²</translation>
  </message>
  <message>
   <source>across flats</source>
   <translation>Schlüsselweite</translation>
  </message>
  <message>
   <source>added, such as -0.012</source>
   <translation>geändert um, etwa -0.012</translation>
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
   <source>along the axis</source>
   <translation>längs der Achse</translation>
  </message>
  <message>
   <source>A, plain</source>
   <translation>A, ohne Schutzsenkung</translation>
  </message>
  <message>
   <source>B, guarded</source>
   <translation>B, mit Schutzsenkung</translation>
  </message>
  <message>
   <source>R, round</source>
   <translation>R, gewölbt</translation>
  </message>
  <message>
   <source>form of the centre</source>
   <translation>Form der Zentrierung</translation>
  </message>
  <message>
   <source>along the axis (RAA)</source>
   <translation>längs der Achse (RAA)</translation>
  </message>
  <message>
   <source>along the flank</source>
   <translation>längs der Flanke</translation>
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
   <source>as a cycle, lifting</source>
   <translation>als Zyklus, abhebend</translation>
  </message>
  <message>
   <source>as a cycle, wholly out</source>
   <translation>als Zyklus, ganz heraus</translation>
  </message>
  <message>
   <source>as it looks</source>
   <translation>wie es aussieht</translation>
  </message>
  <message>
   <source>as its like</source>
   <translation>wie sein Vorbild</translation>
  </message>
  <message>
   <source>as steel</source>
   <translation>wie Stahl</translation>
  </message>
  <message>
   <source>as the chuck</source>
   <translation>wie das Futter</translation>
  </message>
  <message>
   <source>as the chuck's</source>
   <translation>wie beim Futter</translation>
  </message>
  <message>
   <source>as the dialect says</source>
   <translation>wie der Dialekt es sagt</translation>
  </message>
  <message>
   <source>as the machine wants</source>
   <translation>wie die Maschine will</translation>
  </message>
  <message>
   <source>as the part</source>
   <translation>wie das Teil</translation>
  </message>
  <message>
   <source>as the power gives</source>
   <translation>wie die Leistung es gibt</translation>
  </message>
  <message>
   <source>as usual</source>
   <translation>wie üblich</translation>
  </message>
  <message>
   <source>asked for</source>
   <translation>verlangt</translation>
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
   <translation>hintere Kante</translation>
  </message>
  <message>
   <source>bar</source>
   <translation>Stange</translation>
  </message>
  <message>
   <source>bar drawn out</source>
   <translation>Stange herausgezogen</translation>
  </message>
  <message>
   <source>bar free behind spindle</source>
   <translation>Stange frei hinter der Spindel</translation>
  </message>
  <message>
   <source>bar gripper</source>
   <translation>Stangengreifer</translation>
  </message>
  <message>
   <source>bar larger by</source>
   <translation>Stange größer um</translation>
  </message>
  <message>
   <source>bar per part</source>
   <translation>Stange je Teil</translation>
  </message>
  <message>
   <source>bar stop</source>
   <translation>Stangenanschlag</translation>
  </message>
  <message>
   <source>bars for the batch</source>
   <translation>Stangen für das Los</translation>
  </message>
  <message>
   <source>beginning of the program</source>
   <translation>Anfang des Programms</translation>
  </message>
  <message>
   <source>behind the nose</source>
   <translation>hinter der Ecke</translation>
  </message>
  <message>
   <source>being proved</source>
   <translation>wird geprüft</translation>
  </message>
  <message>
   <source>below</source>
   <translation>unten</translation>
  </message>
  <message>
   <source>bent</source>
   <translation>geknickt</translation>
  </message>
  <message>
   <source>between the spindle noses</source>
   <translation>zwischen den Spindelnasen</translation>
  </message>
  <message>
   <source>blade</source>
   <translation>Stechklinge</translation>
  </message>
  <message>
   <source>blade for parting off</source>
   <translation>Klinge zum Abstechen</translation>
  </message>
  <message>
   <source>blank</source>
   <translation>Rohteil</translation>
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
   <translation>Bohrung tief</translation>
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
   <translation>Ausdrehwerkzeug</translation>
  </message>
  <message>
   <source>both faces cut</source>
   <translation>beide Seiten schneiden</translation>
  </message>
  <message>
   <source>both may turn at</source>
   <translation>beide dürfen drehen mit</translation>
  </message>
  <message>
   <source>both turn at</source>
   <translation>beide drehen mit</translation>
  </message>
  <message>
   <source>both ways, into undercuts</source>
   <translation>beide Richtungen, in Hinterschnitte</translation>
  </message>
  <message>
   <source>brake holds</source>
   <translation>Bremse hält</translation>
  </message>
  <message>
   <source>break chips every</source>
   <translation>Späne brechen alle</translation>
  </message>
  <message>
   <source>break sharp edges</source>
   <translation>scharfe Kanten brechen</translation>
  </message>
  <message>
   <source>burrs off, jaws wiped</source>
   <translation>entgratet, Backen abgewischt</translation>
  </message>
  <message>
   <source>but for</source>
   <translation>bis auf</translation>
  </message>
  <message>
   <source>by a stop</source>
   <translation>durch Anschlag</translation>
  </message>
  <message>
   <source>by centre (I, K)</source>
   <translation>mit Mittelpunkt (I, K)</translation>
  </message>
  <message>
   <source>by code or by sizes</source>
   <translation>nach Code oder Maßen</translation>
  </message>
  <message>
   <source>by diameter</source>
   <translation>nach Durchmesser</translation>
  </message>
  <message>
   <source>by going back a little</source>
   <translation>durch kurzes Zurückgehen</translation>
  </message>
  <message>
   <source>by jaw</source>
   <translation>je Backe</translation>
  </message>
  <message>
   <source>by kind of jaw</source>
   <translation>nach Backenart</translation>
  </message>
  <message>
   <source>by pitch</source>
   <translation>nach Steigung</translation>
  </message>
  <message>
   <source>by radius (R)</source>
   <translation>mit Radius (R)</translation>
  </message>
  <message>
   <source>by turning the work</source>
   <translation>durch Drehen des Werkstücks</translation>
  </message>
  <message>
   <source>by what is cut; Z is its front, J the front of the jaws</source>
   <translation>nach dem, was geschnitten wird; Z ist dessen Vorderseite, J die Vorderseite der Backen</translation>
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
   <translation>Träger warten bei Ø</translation>
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
   <translation>geprüft und gemessen</translation>
  </message>
  <message>
   <source>choose what it does</source>
   <translation>wählen, was es tut</translation>
  </message>
  <message>
   <source>chucks, collets, drivers</source>
   <translation>Futter, Spannzangen, Mitnehmer</translation>
  </message>
  <message>
   <source>chucks, collets, mandrels</source>
   <translation>Futter, Spannzangen, Dorne</translation>
  </message>
  <message>
   <source>chucks, collets, mandrels, face drivers</source>
   <translation>Futter, Spannzangen, Dorne, Stirnmitnehmer</translation>
  </message>
  <message>
   <source>circle of the pins</source>
   <translation>Kreis der Stifte</translation>
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
   <translation>grob</translation>
  </message>
  <message>
   <source>code</source>
   <translation>Code</translation>
  </message>
  <message>
   <source>code of the tool</source>
   <translation>Bezeichnung des Werkzeugs</translation>
  </message>
  <message>
   <source>comes from</source>
   <translation>kommt von</translation>
  </message>
  <message>
   <source>computed</source>
   <translation>berechnet</translation>
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
   <source>contacts</source>
   <translation>Berührungen</translation>
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
   <translation>gekreuzt, Spitzen erhaben (RGE)</translation>
  </message>
  <message>
   <source>currency</source>
   <translation>Währung</translation>
  </message>
  <message>
   <source>cut back</source>
   <translation>zurückgeschnitten</translation>
  </message>
  <message>
   <source>cut open</source>
   <translation>offen geschnitten</translation>
  </message>
  <message>
   <source>cut to chips</source>
   <translation>zerspant</translation>
  </message>
  <message>
   <source>cutting force kc1.1</source>
   <translation>Schnittkraft kc1.1</translation>
  </message>
  <message>
   <source>cutting force of the hardest cut</source>
   <translation>Schnittkraft des härtesten Schnitts</translation>
  </message>
  <message>
   <source>declared by the plan</source>
   <translation>vom Plan angesagt</translation>
  </message>
  <message>
   <source>deeper and shallower by turns</source>
   <translation>abwechselnd tiefer und flacher</translation>
  </message>
  <message>
   <source>deepest gouge</source>
   <translation>tiefste Einkerbung</translation>
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
   <translation>Tiefe bis zum vollen Durchmesser</translation>
  </message>
  <message>
   <source>diameter of the bar</source>
   <translation>Durchmesser der Stange</translation>
  </message>
  <message>
   <source>drawn back</source>
   <translation>zurückgezogen</translation>
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
   <source>driven</source>
   <translation>angetrieben</translation>
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
   <translation>angetrieben, längs X</translation>
  </message>
  <message>
   <source>driven, along Z</source>
   <translation>angetrieben, längs Z</translation>
  </message>
  <message>
   <source>dry</source>
   <translation>trocken</translation>
  </message>
  <message>
   <source>each peck</source>
   <translation>je Bohrhub</translation>
  </message>
  <message>
   <source>edges broken</source>
   <translation>Kanten gebrochen</translation>
  </message>
  <message>
   <source>edges left</source>
   <translation>Schneiden übrig</translation>
  </message>
  <message>
   <source>edges left, place, price</source>
   <translation>Schneiden, Ort, Preis</translation>
  </message>
  <message>
   <source>empty</source>
   <translation>leer</translation>
  </message>
  <message>
   <source>chamfer mill</source>
   <translation>Fasenfräser</translation>
  </message>
  <message>
   <source>thread mill</source>
   <translation>Gewindefräser</translation>
  </message>
  <message>
   <source>rows of teeth</source>
   <translation>Zahnreihen</translation>
  </message>
  <message>
   <source>over all its flutes</source>
   <translation>über die ganze Schneide</translation>
  </message>
  <message>
   <source>one at its end</source>
   <translation>eine am Ende</translation>
  </message>
  <message>
   <source>end mill</source>
   <translation>Fräser</translation>
  </message>
  <message>
   <source>engages in</source>
   <translation>greift ein in</translation>
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
   <translation>gleichmäßig</translation>
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
   <translation>Überlauf über das Ende</translation>
  </message>
  <message>
   <source>faces the first</source>
   <translation>gegenüber der ersten</translation>
  </message>
  <message>
   <source>facing allowance</source>
   <translation>Planaufmaß</translation>
  </message>
  <message>
   <source>falls</source>
   <translation>fällt</translation>
  </message>
  <message>
   <source>falls into the chips</source>
   <translation>fällt in die Späne</translation>
  </message>
  <message>
   <source>feature</source>
   <translation>Formelement</translation>
  </message>
  <message>
   <source>feed of a drill of 10 mm</source>
   <translation>Vorschub eines Bohrers von 10 mm</translation>
  </message>
  <message>
   <source>feed of a tooth of a mill of 10 mm</source>
   <translation>Zahnvorschub eines Fräsers von 10 mm</translation>
  </message>
  <message>
   <source>feed to the grip</source>
   <translation>Vorschub bis zum Greifen</translation>
  </message>
  <message>
   <source>fine</source>
   <translation>fein</translation>
  </message>
  <message>
   <source>finished</source>
   <translation>fertig</translation>
  </message>
  <message>
   <source>finished but for</source>
   <translation>fertig bis auf</translation>
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
   <translation>erster Bohrhub</translation>
  </message>
  <message>
   <source>fit</source>
   <translation>Passung</translation>
  </message>
  <message>
   <source>fits mouths up to</source>
   <translation>passt in Senkungen bis</translation>
  </message>
  <message>
   <source>floating</source>
   <translation>pendelnd</translation>
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
   <translation>folgt mit</translation>
  </message>
  <message>
   <source>form tool</source>
   <translation>Formwerkzeug</translation>
  </message>
  <message>
   <source>found</source>
   <translation>gefunden</translation>
  </message>
  <message>
   <source>found over wires, to cut again</source>
   <translation>über Drähte gefunden, zum Nachschneiden</translation>
  </message>
  <message>
   <source>frame long</source>
   <translation>Rahmen lang</translation>
  </message>
  <message>
   <source>frame outside</source>
   <translation>Rahmen außen</translation>
  </message>
  <message>
   <source>friction</source>
   <translation>Reibung</translation>
  </message>
  <message>
   <source>from Z</source>
   <translation>von Z</translation>
  </message>
  <message>
   <source>from both flanks in turn</source>
   <translation>wechselseitig von beiden Flanken</translation>
  </message>
  <message>
   <source>from line</source>
   <translation>ab Zeile</translation>
  </message>
  <message>
   <source>from tool to tool</source>
   <translation>von Werkzeug zu Werkzeug</translation>
  </message>
  <message>
   <source>front</source>
   <translation>vorn</translation>
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
   <source>as deep as a tap goes</source>
   <translation>so tief, wie ein Gewindebohrer geht</translation>
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
   <translation>sanft</translation>
  </message>
  <message>
   <source>gives up at</source>
   <translation>gibt nach bei</translation>
  </message>
  <message>
   <source>goes down at most at</source>
   <translation>fällt ab höchstens bei</translation>
  </message>
  <message>
   <source>grade</source>
   <translation>Sorte</translation>
  </message>
  <message>
   <source>grip at rest</source>
   <translation>Spannkraft in Ruhe</translation>
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
   <source>grip needed</source>
   <translation>nötige Spannkraft</translation>
  </message>
  <message>
   <source>grip on diameter</source>
   <translation>gespannt auf Durchmesser</translation>
  </message>
  <message>
   <source>gripped over</source>
   <translation>gegriffen über</translation>
  </message>
  <message>
   <source>grooving tool</source>
   <translation>Einstechwerkzeug</translation>
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
   <translation>hart</translation>
  </message>
  <message>
   <source>hard, serrated</source>
   <translation>hart, verzahnt</translation>
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
   <translation>gehalten</translation>
  </message>
  <message>
   <source>hexagon</source>
   <translation>Sechskant</translation>
  </message>
  <message>
   <source>highest safe speed</source>
   <translation>höchste sichere Drehzahl</translation>
  </message>
  <message>
   <source>highest speed</source>
   <translation>höchste Drehzahl</translation>
  </message>
  <message>
   <source>hold</source>
   <translation>Spannung</translation>
  </message>
  <message>
   <source>holder clear by</source>
   <translation>Halter frei um</translation>
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
   <source>html</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>in</source>
   <translation>in</translation>
  </message>
  <message>
   <source>in front of the chuck</source>
   <translation>vor dem Futter</translation>
  </message>
  <message>
   <source>inch, ft/min</source>
   <translation>Zoll, ft/min</translation>
  </message>
  <message>
   <source>into the shoulder</source>
   <translation>in den Bund</translation>
  </message>
  <message>
   <source>is being read; what is open stays as it is.</source>
   <translation>wird gelesen; was offen ist, bleibt wie es ist.</translation>
  </message>
  <message>
   <source>is caught</source>
   <translation>wird aufgefangen</translation>
  </message>
  <message>
   <source>is held by the pick-off</source>
   <translation>wird von der Gegenspindel gehalten</translation>
  </message>
  <message>
   <source>it has no file yet</source>
   <translation>noch ohne Datei</translation>
  </message>
  <message>
   <source>its centre of mass</source>
   <translation>ihr Schwerpunkt</translation>
  </message>
  <message>
   <source>its name</source>
   <translation>sein Name</translation>
  </message>
  <message>
   <source>its own words</source>
   <translation>eigene Wörter</translation>
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
   <source>kW at the motor</source>
   <translation>kW am Motor</translation>
  </message>
  <message>
   <source>kept</source>
   <translation>aufgehoben</translation>
  </message>
  <message>
   <source>kept free of the shoulder</source>
   <translation>vom Bund freigehalten</translation>
  </message>
  <message>
   <source>kind</source>
   <translation>Art</translation>
  </message>
  <message>
   <source>knurling tool</source>
   <translation>Rändelwerkzeug</translation>
  </message>
  <message>
   <source>largest torque</source>
   <translation>größtes Drehmoment</translation>
  </message>
  <message>
   <source>lathes and mill-turns</source>
   <translation>Drehmaschinen und Dreh-Fräszentren</translation>
  </message>
  <message>
   <source>least cost</source>
   <translation>geringste Kosten</translation>
  </message>
  <message>
   <source>left</source>
   <translation>links</translation>
  </message>
  <message>
   <source>left beyond declared</source>
   <translation>mehr als angesagt geblieben</translation>
  </message>
  <message>
   <source>left for another cut</source>
   <translation>für einen anderen Schnitt gelassen</translation>
  </message>
  <message>
   <source>left for another tool</source>
   <translation>für ein anderes Werkzeug gelassen</translation>
  </message>
  <message>
   <source>left for finishing</source>
   <translation>Schlichtaufmaß</translation>
  </message>
  <message>
   <source>left for finishing the walls</source>
   <translation>Schlichtaufmaß der Wände</translation>
  </message>
  <message>
   <source>left for the last cut</source>
   <translation>Aufmaß für den letzten Schnitt</translation>
  </message>
  <message>
   <source>left on faces</source>
   <translation>Aufmaß auf Planflächen</translation>
  </message>
  <message>
   <source>left on the face</source>
   <translation>Aufmaß auf der Planfläche</translation>
  </message>
  <message>
   <source>left on the part</source>
   <translation>am Teil geblieben</translation>
  </message>
  <message>
   <source>left on the walls for the last cut</source>
   <translation>Aufmaß der Wände für den letzten Schnitt</translation>
  </message>
  <message>
   <source>length</source>
   <translation>Länge</translation>
  </message>
  <message>
   <source>length in a face</source>
   <translation>Länge in einer Planfläche</translation>
  </message>
  <message>
   <source>length of a bar</source>
   <translation>Länge einer Stange</translation>
  </message>
  <message>
   <source>length of full thread</source>
   <translation>Länge des vollen Gewindes</translation>
  </message>
  <message>
   <source>line</source>
   <translation>Zeile</translation>
  </message>
  <message>
   <source>lost by gripping again</source>
   <translation>Verlust durch Umspannen</translation>
  </message>
  <message>
   <source>machine</source>
   <translation>Maschine</translation>
  </message>
  <message>
   <source>machine and edges, a part</source>
   <translation>Maschine und Schneiden je Teil</translation>
  </message>
  <message>
   <source>machine, an hour</source>
   <translation>Maschine, eine Stunde</translation>
  </message>
  <message>
   <source>made</source>
   <translation>gemacht</translation>
  </message>
  <message>
   <source>main</source>
   <translation>Haupt</translation>
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
   <translation>darf schlagen um</translation>
  </message>
  <message>
   <source>measured</source>
   <translation>gemessen</translation>
  </message>
  <message>
   <source>medium</source>
   <translation>mittel</translation>
  </message>
  <message>
   <source>middle of each drill's range</source>
   <translation>Mitte des Bereichs jedes Bohrers</translation>
  </message>
  <message>
   <source>middle of each mill's range</source>
   <translation>Mitte des Bereichs jedes Fräsers</translation>
  </message>
  <message>
   <source>middle off the axis</source>
   <translation>Mitte neben der Achse</translation>
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
   <translation>mm, m/min</translation>
  </message>
  <message>
   <source>most metal a minute</source>
   <translation>meiste Spanmenge je Minute</translation>
  </message>
  <message>
   <source>mouth</source>
   <translation>Senkung</translation>
  </message>
  <message>
   <source>move by move</source>
   <translation>Bewegung für Bewegung</translation>
  </message>
  <message>
   <source>moves neither tool nor work</source>
   <translation>bewegt weder Werkzeug noch Werkstück</translation>
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
   <translation>neues Gewinde</translation>
  </message>
  <message>
   <source>no</source>
   <translation>nein</translation>
  </message>
  <message>
   <source>no machine named</source>
   <translation>keine Maschine genannt</translation>
  </message>
  <message>
   <source>no operation</source>
   <translation>kein Arbeitsgang</translation>
  </message>
  <message>
   <source>no other tool</source>
   <translation>kein anderes Werkzeug</translation>
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
   <translation>normal</translation>
  </message>
  <message>
   <source>nose past the centre</source>
   <translation>Ecke über Mitte hinaus</translation>
  </message>
  <message>
   <source>not finished</source>
   <translation>nicht fertig</translation>
  </message>
  <message>
   <source>not in the list</source>
   <translation>nicht in der Liste</translation>
  </message>
  <message>
   <source>not known: both ways are looked at</source>
   <translation>unbekannt: beide Wege werden geprüft</translation>
  </message>
  <message>
   <source>not looked at</source>
   <translation>nicht betrachtet</translation>
  </message>
  <message>
   <source>not made</source>
   <translation>fehlt</translation>
  </message>
  <message>
   <source>not measured</source>
   <translation>nicht gemessen</translation>
  </message>
  <message>
   <source>not said</source>
   <translation>nicht gesagt</translation>
  </message>
  <message>
   <source>not set</source>
   <translation>nicht gesetzt</translation>
  </message>
  <message>
   <source>not there</source>
   <translation>nicht da</translation>
  </message>
  <message>
   <source>note</source>
   <translation>Bemerkung</translation>
  </message>
  <message>
   <source>nothing</source>
   <translation>nichts</translation>
  </message>
  <message>
   <source>offsets of two tools differ by</source>
   <translation>Korrekturen zweier Werkzeuge weichen ab um</translation>
  </message>
  <message>
   <source>one cycle for all</source>
   <translation>ein Zyklus für alle</translation>
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
   <source>other sets of jaws</source>
   <translation>andere Backensätze</translation>
  </message>
  <message>
   <source>out</source>
   <translation>daneben</translation>
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
   <source>over</source>
   <translation>zu Ende</translation>
  </message>
  <message>
   <source>parallel to the contour</source>
   <translation>parallel zur Kontur</translation>
  </message>
  <message>
   <source>part</source>
   <translation>Teil</translation>
  </message>
  <message>
   <source>part-off cut</source>
   <translation>Abstechschnitt</translation>
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
   <translation>Teile je Lauf</translation>
  </message>
  <message>
   <source>parts in the batch</source>
   <translation>Teile im Los</translation>
  </message>
  <message>
   <source>parts per bar</source>
   <translation>Teile je Stange</translation>
  </message>
  <message>
   <source>passes</source>
   <translation>Schnitte</translation>
  </message>
  <message>
   <source>past a through hole</source>
   <translation>über ein Durchgangsloch hinaus</translation>
  </message>
  <message>
   <source>pdf</source>
   <translation type="unfinished" />
  </message>
  <message>
   <source>phase</source>
   <translation>Phase</translation>
  </message>
  <message>
   <source>pilot</source>
   <translation>Bohrung</translation>
  </message>
  <message>
   <source>pins stand out</source>
   <translation>Stifte stehen vor</translation>
  </message>
  <message>
   <source>pins wide</source>
   <translation>Stifte breit</translation>
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
   <translation>Ort</translation>
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
   <source>plunged with a blade</source>
   <translation>mit der Klinge gestochen</translation>
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
   <translation>Preis</translation>
  </message>
  <message>
   <source>price per kg</source>
   <translation>Preis je kg</translation>
  </message>
  <message>
   <source>print</source>
   <translation>drucken</translation>
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
   <source>pulled away from the chuck</source>
   <translation>vom Futter weg gezogen</translation>
  </message>
  <message>
   <source>push along Z</source>
   <translation>Druck längs Z</translation>
  </message>
  <message>
   <source>push at most</source>
   <translation>höchste Schubkraft</translation>
  </message>
  <message>
   <source>push at the grip</source>
   <translation>Schub beim Greifen</translation>
  </message>
  <message>
   <source>push on the pins</source>
   <translation>Schub auf die Stifte</translation>
  </message>
  <message>
   <source>radius</source>
   <translation>Radius</translation>
  </message>
  <message>
   <source>radius of its corners</source>
   <translation>Radius seiner Ecken</translation>
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
   <translation>Eilgang endet vor dem Greifen</translation>
  </message>
  <message>
   <source>rapid in two axes</source>
   <translation>Eilgang in zwei Achsen</translation>
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
   <source>read and cut; not proved against a drawing</source>
   <translation>gelesen und geschnitten; nicht gegen eine Zeichnung bewiesen</translation>
  </message>
  <message>
   <source>reamer</source>
   <translation>Reibahle</translation>
  </message>
  <message>
   <source>reference</source>
   <translation>Bezug</translation>
  </message>
  <message>
   <source>reference point at Ø</source>
   <translation>Referenzpunkt bei Ø</translation>
  </message>
  <message>
   <source>rest</source>
   <translation>Lünette</translation>
  </message>
  <message>
   <source>rest of the bar</source>
   <translation>Reststück</translation>
  </message>
  <message>
   <source>right</source>
   <translation>rechts</translation>
  </message>
  <message>
   <source>rigid, in step with the spindle</source>
   <translation>starr, im Takt der Spindel</translation>
  </message>
  <message>
   <source>rollers stand in</source>
   <translation>Rollen stehen vor</translation>
  </message>
  <message>
   <source>rollers wide</source>
   <translation>Rollen breit</translation>
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
   <translation>Lauf</translation>
  </message>
  <message>
   <source>run-in</source>
   <translation>Anlauf</translation>
  </message>
  <message>
   <source>run-in and run-out</source>
   <translation>An- und Auslauf</translation>
  </message>
  <message>
   <source>running</source>
   <translation>läuft</translation>
  </message>
  <message>
   <source>runs out</source>
   <translation>läuft aus</translation>
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
   <translation>zweite</translation>
  </message>
  <message>
   <source>second spindle</source>
   <translation>Gegenspindel</translation>
  </message>
  <message>
   <source>settles before closing</source>
   <translation>beruhigt sich vor dem Schließen</translation>
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
   <translation>Anteil des Vorschubs</translation>
  </message>
  <message>
   <source>short rating</source>
   <translation>Kurzzeitleistung</translation>
  </message>
  <message>
   <source>shortest rest to hold</source>
   <translation>kürzestes haltbares Reststück</translation>
  </message>
  <message>
   <source>shoulder at Z</source>
   <translation>Schulter bei Z</translation>
  </message>
  <message>
   <source>shrinking</source>
   <translation>abnehmend</translation>
  </message>
  <message>
   <source>side</source>
   <translation>Seite</translation>
  </message>
  <message>
   <source>simulated</source>
   <translation>simuliert</translation>
  </message>
  <message>
   <source>size</source>
   <translation>Maß</translation>
  </message>
  <message>
   <source>size measured</source>
   <translation>gemessenes Maß</translation>
  </message>
  <message>
   <source>skin goes deep</source>
   <translation>Kruste reicht tief</translation>
  </message>
  <message>
   <source>slower feed below Ø</source>
   <translation>langsamerer Vorschub unter Ø</translation>
  </message>
  <message>
   <source>soft, bored</source>
   <translation>weich, ausgedreht</translation>
  </message>
  <message>
   <source>somebody watches</source>
   <translation>jemand dabei</translation>
  </message>
  <message>
   <source>space</source>
   <translation>Raum</translation>
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
   <source>spindle</source>
   <translation>Spindel</translation>
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
   <source>square to the axis</source>
   <translation>quer zur Achse</translation>
  </message>
  <message>
   <source>stance</source>
   <translation>Haltung</translation>
  </message>
  <message>
   <source>stands at Z</source>
   <translation>steht bei Z</translation>
  </message>
  <message>
   <source>starts at Z</source>
   <translation>beginnt bei Z</translation>
  </message>
  <message>
   <source>state</source>
   <translation>Stand</translation>
  </message>
  <message>
   <source>stations</source>
   <translation>Plätze</translation>
  </message>
  <message>
   <source>steady and follow rests</source>
   <translation>feste und mitlaufende</translation>
  </message>
  <message>
   <source>steady rest</source>
   <translation>Lünette</translation>
  </message>
  <message>
   <source>steady speed below Ø</source>
   <translation>feste Drehzahl unter Ø</translation>
  </message>
  <message>
   <source>step</source>
   <translation>Schritt</translation>
  </message>
  <message>
   <source>stick-out</source>
   <translation>Auskragung</translation>
  </message>
  <message>
   <source>stick-out over diameter</source>
   <translation>Auskraglänge zu Durchmesser</translation>
  </message>
  <message>
   <source>still</source>
   <translation>steht</translation>
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
   <source>straight</source>
   <translation>gerade</translation>
  </message>
  <message>
   <source>stretch ends at Z</source>
   <translation>Bereich endet bei Z</translation>
  </message>
  <message>
   <source>stretch starts at Z</source>
   <translation>Bereich beginnt bei Z</translation>
  </message>
  <message>
   <source>surface speed</source>
   <translation>Schnittgeschwindigkeit</translation>
  </message>
  <message>
   <source>surface there is</source>
   <translation>vorhandene Fläche</translation>
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
   <translation>spannt von</translation>
  </message>
  <message>
   <source>takes up to</source>
   <translation>spannt bis</translation>
  </message>
  <message>
   <source>tap</source>
   <translation>Gewindebohrer</translation>
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
   <source>there</source>
   <translation>vorhanden</translation>
  </message>
  <message>
   <source>this program</source>
   <translation>dieses Programm</translation>
  </message>
  <message>
   <source>this work is in no file. Drop it for good?</source>
   <translation>diese Arbeit steht in keiner Datei. Endgültig verwerfen?</translation>
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
   <translation>Gewindedrehwerkzeug</translation>
  </message>
  <message>
   <source>through</source>
   <translation>durch</translation>
  </message>
  <message>
   <source>time</source>
   <translation>Zeit</translation>
  </message>
  <message>
   <source>to Z</source>
   <translation>bis Z</translation>
  </message>
  <message>
   <source>to be faced off</source>
   <translation>abzuplanen</translation>
  </message>
  <message>
   <source>to open, and to close</source>
   <translation>zum Öffnen und zum Schließen</translation>
  </message>
  <message>
   <source>to the next cut</source>
   <translation>bis zum nächsten Schnitt</translation>
  </message>
  <message>
   <source>today</source>
   <translation>heute</translation>
  </message>
  <message>
   <source>nothing seen yet</source>
   <translation>noch nichts gesehen</translation>
  </message>
  <message>
   <source>Plan this job with them</source>
   <translation>Diesen Auftrag damit planen</translation>
  </message>
  <message>
   <source>tool</source>
   <translation>Werkzeug</translation>
  </message>
  <message>
   <source>tool change</source>
   <translation>Werkzeugwechsel</translation>
  </message>
  <message>
   <source>tool for pull turning</source>
   <translation>Werkzeug für ziehendes Drehen</translation>
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
   <source>toward the axis</source>
   <translation>zur Achse hin</translation>
  </message>
  <message>
   <source>toward the chuck only</source>
   <translation>nur zum Futter hin</translation>
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
   <translation>umgedreht und festgezogen</translation>
  </message>
  <message>
   <source>turning tool</source>
   <translation>Drehwerkzeug</translation>
  </message>
  <message>
   <source>turns a minute</source>
   <translation>Umdrehungen je Minute</translation>
  </message>
  <message>
   <source>turns it stands at the ends</source>
   <translation>Umdrehungen Stillstand an den Enden</translation>
  </message>
  <message>
   <source>turret</source>
   <translation>Revolver</translation>
  </message>
  <message>
   <source>typed</source>
   <translation>eingegeben</translation>
  </message>
  <message>
   <source>typed depths</source>
   <translation>eingegebene Tiefen</translation>
  </message>
  <message>
   <source>undo the last change, or save it. What happened is written down in log/faults.txt.</source>
   <translation>die letzte Änderung zurücknehmen oder sichern. Was geschah, steht in log/faults.txt.</translation>
  </message>
  <message>
   <source>unknown</source>
   <translation>unbekannt</translation>
  </message>
  <message>
   <source>unknown: no loss of grip computed</source>
   <translation>unbekannt: kein Verlust an Spannkraft gerechnet</translation>
  </message>
  <message>
   <source>unknown: not judged</source>
   <translation>unbekannt: nicht beurteilt</translation>
  </message>
  <message>
   <source>unsafe</source>
   <translation>unsicher</translation>
  </message>
  <message>
   <source>use</source>
   <translation>verwenden</translation>
  </message>
  <message>
   <source>usual</source>
   <translation>üblich</translation>
  </message>
  <message>
   <source>usual place, Z</source>
   <translation>üblicher Ort, Z</translation>
  </message>
  <message>
   <source>very coarse</source>
   <translation>sehr grob</translation>
  </message>
  <message>
   <source>wall behind it</source>
   <translation>Wand dahinter</translation>
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
   <source>was changed outside this window.</source>
   <translation>wurde außerhalb dieses Fensters geändert.</translation>
  </message>
  <message>
   <source>was saved by somebody else since it was opened here.</source>
   <translation>wurde von jemand anderem gesichert, seit sie hier geöffnet ist.</translation>
  </message>
  <message>
   <source>what carries slender pieces</source>
   <translation>was schlanke Teile stützt</translation>
  </message>
  <message>
   <source>what differs</source>
   <translation>was anders ist</translation>
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
   <source>what the simulated gauge is to read, mm</source>
   <translation>was das simulierte Messmittel anzeigen soll, mm</translation>
  </message>
  <message>
   <source>what was seen, what was done</source>
   <translation>was zu sehen war, was getan wurde</translation>
  </message>
  <message>
   <source>where the hole is deep</source>
   <translation>wo das Loch tief ist</translation>
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
   <source>width of the wear</source>
   <translation>Verschleißbreite</translation>
  </message>
  <message>
   <source>with Y</source>
   <translation>mit Y</translation>
  </message>
  <message>
   <source>with corners</source>
   <translation>mit Ecken</translation>
  </message>
  <message>
   <source>without a name</source>
   <translation>ohne Namen</translation>
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
   <source>{} ways found, the best first</source>
   <translation>{} Wege gefunden, der beste zuerst</translation>
  </message>
  <message>
   <source>Ø end</source>
   <translation>Ø Ende</translation>
  </message>
  <message>
   <source>Ø of a milling spindle's nose</source>
   <translation>Ø der Nase einer Frässpindel</translation>
  </message>
  <message>
   <source>Let {} and {} work together</source>
   <translation>{} und {} zusammen arbeiten lassen</translation>
  </message>
  <message>
   <source>{} and {} never work at the same time: they would meet.</source>
   <translation>{} und {} arbeiten nie zugleich: sie würden sich treffen.</translation>
  </message>
  <message>
   <source>left for grinding</source>
   <translation>bleibt zum Schleifen</translation>
  </message>
  <message>
   <source>Ø {} to {}; turned so, ground to size after</source>
   <translation>Ø {} bis {}; so gedreht, danach auf Maß geschliffen</translation>
  </message>
  <message>
   <source>Ø {} to {}; cut to the middle</source>
   <translation>Ø {} bis {}; auf die Mitte gedreht</translation>
  </message>
   <message>
   <source>Program words</source>
   <translation>Programmwörter</translation>
  </message>
  <message>
   <source>as controls want them</source>
   <translation>wie Steuerungen sie wollen</translation>
  </message>
  <message>
   <source>X20 without a point is</source>
   <translation>X20 ohne Punkt ist</translation>
  </message>
  <message>
   <source>P, Q and D of cycles count steps</source>
   <translation>P, Q und D von Zyklen zählen Schritte</translation>
  </message>
  <message>
   <source>X is a diameter</source>
   <translation>X ist ein Durchmesser</translation>
  </message>
  <message>
   <source>decimals written, mm</source>
   <translation>Stellen geschrieben, mm</translation>
  </message>
  <message>
   <source>decimals written, inch</source>
   <translation>Stellen geschrieben, Zoll</translation>
  </message>
  <message>
   <source>decimals of a step, mm</source>
   <translation>Stellen eines Schritts, mm</translation>
  </message>
  <message>
   <source>decimals of a step, inch</source>
   <translation>Stellen eines Schritts, Zoll</translation>
  </message>
  <message>
   <source>decimals of a feed, mm</source>
   <translation>Stellen eines Vorschubs, mm</translation>
  </message>
  <message>
   <source>decimals of a feed, inch</source>
   <translation>Stellen eines Vorschubs, Zoll</translation>
  </message>
  <message>
   <source>units</source>
   <translation>Einheiten</translation>
  </message>
  <message>
   <source>block numbers step by</source>
   <translation>Satznummern in Schritten von</translation>
  </message>
  <message>
   <source>ways from where it is</source>
   <translation>Wege von dort, wo es steht</translation>
  </message>
  <message>
   <source>turns from where the work is</source>
   <translation>Drehungen von da, wo das Werkstück steht</translation>
  </message>
  <message>
   <source>ways along Y from where it is</source>
   <translation>Wege in Y von da, wo es steht</translation>
  </message>
  <message>
   <source>chamfers and roundings</source>
   <translation>Fasen und Rundungen</translation>
  </message>
  <message>
   <source>I and K of an arc</source>
   <translation>I und K eines Bogens</translation>
  </message>
  <message>
   <source>R of a drilling cycle</source>
   <translation>R eines Bohrzyklus</translation>
  </message>
  <message>
   <source>lead of a thread</source>
   <translation>Steigung eines Gewindes</translation>
  </message>
  <message>
   <source>T says</source>
   <translation>T sagt</translation>
  </message>
  <message>
   <source>a tool is called by</source>
   <translation>ein Werkzeug wird gerufen mit</translation>
  </message>
  <message>
   <source>its offset taken away by</source>
   <translation>seine Korrektur weggenommen mit</translation>
  </message>
  <message>
   <source>waits by</source>
   <translation>wartet mit</translation>
  </message>
  <message>
   <source>channels wait at</source>
   <translation>Kanäle warten bei</translation>
  </message>
  <message>
   <source>marks from</source>
   <translation>Marken ab</translation>
  </message>
  <message>
   <source>second spindle moves by</source>
   <translation>die zweite Spindel fährt mit</translation>
  </message>
  <message>
   <source>runs a program so often</source>
   <translation>führt ein Programm so oft aus</translation>
  </message>
  <message>
   <source>files are named</source>
   <translation>Dateien heißen</translation>
  </message>
  <message>
   <source>and end with</source>
   <translation>und enden mit</translation>
  </message>
  <message>
   <source>% opens and closes</source>
   <translation>% öffnet und schließt</translation>
  </message>
  <message>
   <source>comment up to the end behind</source>
   <translation>Kommentar bis zum Ende hinter</translation>
  </message>
  <message>
   <source>all channels in one file</source>
   <translation>alle Kanäle in einer Datei</translation>
  </message>
  <message>
   <source>the unit</source>
   <translation>die Einheit</translation>
  </message>
  <message>
   <source>its smallest step</source>
   <translation>der kleinste Schritt</translation>
  </message>
  <message>
   <source>per turn</source>
   <translation>je Umdrehung</translation>
  </message>
  <message>
   <source>per minute</source>
   <translation>je Minute</translation>
  </message>
  <message>
   <source>U and W</source>
   <translation>U und W</translation>
  </message>
  <message>
   <source>a word of their own</source>
   <translation>ein eigenes Wort</translation>
  </message>
  <message>
   <source>behind a comma</source>
   <translation>hinter einem Komma</translation>
  </message>
  <message>
   <source>C, R, A plain</source>
   <translation>C, R, A ohne Komma</translation>
  </message>
  <message>
   <source>from its start</source>
   <translation>von seinem Anfang</translation>
  </message>
  <message>
   <source>places</source>
   <translation>Orte</translation>
  </message>
  <message>
   <source>from the start</source>
   <translation>vom Anfang</translation>
  </message>
  <message>
   <source>a place</source>
   <translation>ein Ort</translation>
  </message>
  <message>
   <source>behind F</source>
   <translation>hinter F</translation>
  </message>
  <message>
   <source>behind K and I</source>
   <translation>hinter K und I</translation>
  </message>
  <message>
   <source>station and offset</source>
   <translation>Platz und Korrektur</translation>
  </message>
  <message>
   <source>station alone</source>
   <translation>Platz allein</translation>
  </message>
  <message>
   <source>a program begins</source>
   <translation>ein Programm beginnt</translation>
  </message>
  <message>
   <source>a tool with surface speed</source>
   <translation>ein Werkzeug mit Schnittgeschwindigkeit</translation>
  </message>
  <message>
   <source>a tool with fixed speed</source>
   <translation>ein Werkzeug mit fester Drehzahl</translation>
  </message>
  <message>
   <source>a tool on standing work</source>
   <translation>ein Werkzeug am stehenden Werkstück</translation>
  </message>
  <message>
   <source>a driven tool</source>
   <translation>ein angetriebenes Werkzeug</translation>
  </message>
  <message>
   <source>behind a tool</source>
   <translation>hinter einem Werkzeug</translation>
  </message>
  <message>
   <source>behind a driven tool</source>
   <translation>hinter einem angetriebenen Werkzeug</translation>
  </message>
  <message>
   <source>to the reference point</source>
   <translation>zum Referenzpunkt</translation>
  </message>
  <message>
   <source>a program ends</source>
   <translation>ein Programm endet</translation>
  </message>
  <message>
   <source>what stands at its head</source>
   <translation>was an seinem Kopf steht</translation>
  </message>
</context>
</TS>
