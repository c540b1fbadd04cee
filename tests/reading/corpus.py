"""Programs as people write them, and what each does: worked out by hand, block by block.

A move is ``line how z d feed``: how is r (rapid), f (feed), t (thread) or d (dwell, its seconds in place of the feed); a
place nobody can know is ``-``. What is told is ``line kind``; kinds are n (not understood), q (question) and s
(suspicious).
"""

from dataclasses import dataclass

__all__ = ["CORPUS", "Sample"]


@dataclass(frozen=True)
class Sample:
    """``moves`` may be None where only what is told matters; ``given`` is what a person knows besides."""

    name: str
    text: str
    moves: str | None
    told: str = ""
    dialect: str | None = None
    given: dict[str, object] | None = None


A = "O1\nG21 G40 G99\nT0101\nG50 S2000\nG96 S150 M3\n"
"""Five lines that say everything a cut in millimetres needs."""

INCH = "O1\nG20 G40 G99\nT0101\nG50 S2000\nG96 S500 M3\n"
B = "O1\nG21 G40 G95 G90\nT0101\nG92 S2000\nG96 S150 M3\n"
C = "O1\nG71 G40 G95 G90\nT0101\nG92 S2000\nG96 S150 M3\n"
ISO = "%1\nG71 G40 G95 G90\nT1 D1 M6\nG92 S2000\nG96 S150 M3\n"

MODALITY = [
    Sample(
        "a word stays",
        A + "G0 X50. Z2.\nG1 Z-10. F.2\nX52.\nG0 X60.\nM30",
        "6r 2 50, 7f -10 50 .2, 8f -10 52 .2, 9r -10 60",
    ),
    Sample(
        "a contour that turns back along the axis",
        A + "G0 X42. Z2.\nG71 U2. R.5\nG71 P10 Q20 U.4 W.1 F.2\nN10 G0 X20.\nG1 Z-20.\nX30. Z-15.\nN20 X40. Z-40.\nM30",
        None,
        "8n",
    ),
    Sample(
        "a block behind the mark of a comment",
        A + "G0 X50. Z2. ; G1 Z-10. F.2;\nG0 X60. ; CLEAR OF M24X1.5\n; G1 X5.\nM30;",
        "6r 2 50, 7r 2 60",
        "6q",
    ),
    Sample(
        "feed and speed outlive a tool",
        A + "G0 X50. Z2.\nG1 Z-1. F.2\nG0 X100. Z50.\nT0202\nG0 X40. Z2.\nG1 Z-5.\nM30",
        "6r 2 50, 7f -1 50 .2, 8r 50 100, 10r 2 40, 11f -5 40 .2",
        "11s",
    ),
    Sample(
        "the spindle before the tool",
        "O1\nG21G99\nG97 S800 M3\nT0303\nG0 X20. Z1.\nG1 Z-5. F.1\nM30",
        "5r 1 20, 6f -5 20 .1",
    ),
    Sample(
        "the clamp after the speed",
        "O1\nG21G99\nT0101\nG96 S150 M3\nG50 S2500\nG0 X20. Z1.\nG1 Z-5. F.1\nM30",
        "6r 1 20, 7f -5 20 .1",
    ),
    Sample(
        "a block of one axis",
        A + "G0 X50. Z2.\nG1 X48. F.2\nZ-5.\nX47.\nZ-9.\nM30",
        "6r 2 50, 7f 2 48 .2, 8f -5 48 .2, 9f -5 47 .2, 10f -9 47 .2",
    ),
    Sample(
        "ways from where the tool is",
        A + "G0 X50. Z2.\nG1 W-12. F.2\nU4. W-1.\nG0 U10.\nM30",
        "6r 2 50, 7f -10 50 .2, 8f -11 54 .2, 9r -11 64",
    ),
    Sample(
        "clamp and speed in one block",
        "O1\nG21 G99 T0101\nG50 S2000 G96 S120 M3\nG0 X20. Z1.\nG1 Z-5. F.1\nM30",
        "4r 1 20, 5f -5 20 .1",
    ),
    Sample(
        "feed per minute", "O1\nG21 G98\nT0101\nG97 S1000 M3\nG0 X20. Z1.\nG1 Z-5. F120.\nM30", "5r 1 20, 6f -5 20 120"
    ),
    Sample(
        "a dwell in every spelling",
        A + "G0 X50. Z2.\nG4 X1.5\nG4 U.5\nG4 P250\nM30",
        "6r 2 50, 7d 2 50 1.5, 8d 2 50 .5, 9d 2 50 .25",
    ),
    Sample("inches", INCH + "G0 X2. Z.1\nG1 Z-1. F.01\nM30", "6r 2.54 50.8, 7f -25.4 50.8 .254"),
]

DATUMS = [
    Sample(
        "a preset before anything is cut",
        "O1\nG21G99\nG50 X200. Z150. S2000\nT0101\nG96 S150 M3\nG0 X50. Z2.\nG1 Z-5. F.2\nM30",
        "6r 2 50, 7f -5 50 .2",
    ),
    Sample(
        "a shift by a preset in the middle",
        A + "G0 X50. Z2.\nG1 Z-10. F.2\nG50 Z0\nG1 Z-5.\nM30",
        "6r 2 50, 7f -10 50 .2, 9f -15 50 .2",
    ),
    Sample(
        "a shift by a way",
        A + "G0 X50. Z2.\nG1 Z-10. F.2\nG50 W3.\nG1 Z-10.\nM30",
        "6r 2 50, 7f -10 50 .2, 9f -13 50 .2",
    ),
    Sample(
        "a local shift and back",
        A + "G54 G0 X50. Z2.\nG52 Z-30.\nG1 Z-5. F.2\nG52 Z0\nG0 X60.\nZ1.\nM30",
        "6r 2 50, 8f -35 50 .2, 10r -35 60, 11r 1 60",
    ),
    Sample(
        "another datum that nobody knows",
        A + "G54 G0 X50. Z2.\nG1 Z-3. F.2\nG55 G0 X50. Z2.\nM30",
        "6r 2 50, 7f -3 50 .2, 8r 2 50",
        "8q",
    ),
    Sample(
        "datums that are known",
        A + "G54 G0 X50. Z2.\nG1 Z-3. F.2\nG0 Z5.\nG55 Z2.\nM30",
        "6r 2 50, 7f -3 50 .2, 8r 5 50, 9r -38 50",
        given={"datums": {"G54": [-400, 0], "G55": [-440, 0]}},
    ),
    Sample(
        "datums that the program sets",
        "O1\nG21 G99 G10 L2 P1 X0 Z-400.\nG10 L2 P2 X0 Z-425.\nT0101\nG97 S500 M3\nG54 G0 X50. Z2.\nG1 Z-3. F.2\n"
        "G0 Z5.\nG55 Z2.\nM30",
        "6r 2 50, 7f -3 50 .2, 8r 5 50, 9r -23 50",
    ),
    Sample("the reference point is nowhere that is known", A + "G0 X50. Z2.\nG28 U0 W0\nM30", "6r 2 50, 7r - -"),
    Sample("by way of a place to the reference", A + "G0 X50. Z2.\nG28 X80. Z10.\nM30", "6r 2 50, 7r 10 80, 7r - -"),
    Sample("a way from nowhere", A + "G28 U0 W0\nG0 U-10.\nM30", None, "7q"),
    Sample("a place of the machine", A + "G0 X50. Z2.\nG53 X0 Z0\nM30", "6r 2 50, 7r - -"),
    Sample(
        "wear written by the program",
        A + "G10 P1 X-.2 Z0\nT0101\nG0 X50. Z2.\nG1 Z-3. F.2\nM30",
        "8r 2 49.8, 9f -3 49.8 .2",
    ),
    Sample(
        "distances and places",
        B + "G0 X50. Z2.\nG91 G1 Z-12. F.2\nX4. Z-1.\nG90 G0 X80.\nM30",
        "6r 2 50, 7f -10 50 .2, 8f -11 54 .2, 9r -11 80",
    ),
    Sample("home in distances", B + "G0 X50. Z2.\nG91 G28 X0 Z0\nG90 G0 X40. Z1.\nM30", "6r 2 50, 7r - -, 8r 1 40"),
]

CYCLES = [
    Sample(
        "a pass again and again",
        A + "G0 X60. Z2.\nG90 X56. Z-20. F.2\nX52.\nX50.\nG0 X80.\nM30",
        "6r 2 60, 7r 2 56, 7f -20 56 .2, 7f -20 60 .2, 7r 2 60, 8r 2 52, 8f -20 52 .2, 8f -20 60 .2, 8r 2 60, "
        "9r 2 50, 9f -20 50 .2, 9f -20 60 .2, 9r 2 60, 10r 2 80",
    ),
    Sample(
        "a taper pass",
        A + "G0 X60. Z2.\nG90 X56. Z-20. R-3. F.2\nM30",
        "6r 2 60, 7r 2 50, 7f -20 56 .2, 7f -20 60 .2, 7r 2 60",
    ),
    Sample(
        "a taper pass that repeats keeps its taper",
        A + "G0 X60. Z2.\nG90 X56. Z-20. R-3. F.2\nX54.\nM30",
        "6r 2 60, 7r 2 50, 7f -20 56 .2, 7f -20 60 .2, 7r 2 60, 8r 2 48, 8f -20 54 .2, 8f -20 60 .2, 8r 2 60",
    ),
    Sample(
        "a taper by I",
        A + "G0 X60. Z2.\nG90 X56. Z-20. I-3. F.2\nM30",
        "6r 2 60, 7r 2 50, 7f -20 56 .2, 7f -20 60 .2, 7r 2 60",
    ),
    Sample(
        "a pass by ways",
        A + "G0 X60. Z2.\nG90 U-4. W-22. F.2\nU-8.\nM30",
        "6r 2 60, 7r 2 56, 7f -20 56 .2, 7f -20 60 .2, 7r 2 60, 8r 2 52, 8f -20 52 .2, 8f -20 60 .2, 8r 2 60",
    ),
    Sample(
        "facing passes",
        A + "G0 X60. Z2.\nG94 X20. Z-1. F.2\nZ-2.\nM30",
        "6r 2 60, 7r -1 60, 7f -1 20 .2, 7f 2 20 .2, 7r 2 60, 8r -2 60, 8f -2 20 .2, 8f 2 20 .2, 8r 2 60",
    ),
    Sample(
        "a thread by passes",
        "O1\nG21 G99\nT0404\nG97 S600 M3\nG0 X26. Z5.\nG92 X23.4 Z-18. F1.5\nX23.\nG0 X50.\nM30",
        "5r 5 26, 6r 5 23.4, 6t -18 23.4 1.5, 6r -18 26, 6r 5 26, 7r 5 23, 7t -18 23 1.5, 7r -18 26, 7r 5 26, 8r 5 50",
    ),
    Sample(
        "a taper thread",
        "O1\nG21 G99\nT0404\nG97 S600 M3\nG0 X26. Z5.\nG92 X24. Z-20. R-.781 F2.\nM30",
        "5r 5 26, 6r 5 22.438, 6t -20 24 2, 6r -20 26, 6r 5 26",
    ),
    Sample(
        "a thread by hand",
        "O1\nG21 G99\nT0404\nG97 S600 M3\nG0 X23. Z5.\nG32 Z-18. F1.5\nG0 X26.\nZ5.\nX22.5\nG32 Z-18.\nG0 X26.\nM30",
        "5r 5 23, 6t -18 23 1.5, 7r -18 26, 8r 5 26, 9r 5 22.5, 10t -18 22.5 1.5, 11r -18 26",
    ),
    Sample(
        "roughing in two blocks",
        A
        + "G0 X44. Z2.\nG71 U2. R1.\nG71 P10 Q20 U0 W0 F.3\nN10 G0 X36.\nG1 Z-10. F.1\nX40.\nN20 Z-20.\nG70 P10 Q20\nM30",
        "6r 2 44, 8r 2 40, 8f -20 40 .3, 8f -19 42 .3, 8r 2 42, 8r 2 36, 8f -10 36 .3, 8f -9 38 .3, 8r 2 38, 8r 2 44, "
        "8r 2 36, 8f -10 36 .3, 8f -10 40 .3, 8f -20 40 .3, 8r -20 44, 8r 2 44, "
        "13r 2 36, 13f -10 36 .1, 13f -10 40 .1, 13f -20 40 .1, 13r -20 44, 13r 2 44",
    ),
    Sample(
        "roughing in one block",
        A + "G0 X44. Z2.\nG71 P10 Q20 U0 W0 D4000 F.3\nN10 G0 X36.\nG1 Z-10.\nX40.\nN20 Z-20.\nM30",
        "6r 2 44, 7r 2 36, 7f -10 36 .3, 7f -9.5 37 .3, 7r 2 37, 7r 2 44, 7r 2 36, 7f -10 36 .3, 7f -10 40 .3, 7f -20 40 .3, 7r -20 44, 7r 2 44",
    ),
    Sample(
        "the contour again",
        A + "G0 X50. Z5.\nG73 U2. W1. R2\nG73 P10 Q20 U0 W0 F.3\nN10 G0 X36. Z2.\nN20 G1 Z-10.\nM30",
        "6r 5 50, 8r 6 54, 8r 3 54, 8r 3 40, 8f -9 40 .3, 8r -9 54, 8r 5 50, 8r 2 50, 8r 2 36, 8f -10 36 .3, 8r -10 50, 8r 5 50",
    ),
    Sample(
        "a groove",
        A + "G0 X42. Z-20.\nG75 R.5\nG75 X36. Z-22. P2000 Q2000 F.1\nM30",
        "6r -20 42, 8f -20 38 .1, 8r -20 39, 8f -20 36 .1, 8r -20 42, 8r -22 42, 8f -22 38 .1, 8r -22 39, 8f -22 36 .1, 8r -22 42, 8r -20 42",
    ),
    Sample("a groove in one block", A + "G0 X42. Z-20.\nG75 X36. I3. F.1\nM30", "6r -20 42, 7f -20 36 .1, 7r -20 42"),
    Sample(
        "a deep hole by pecks",
        "O1\nG21 G99\nT0505\nG97 S900 M3\nG0 X0 Z5.\nG74 R1.\nG74 Z-15. Q10000 F.1\nM30",
        "5r 5 0, 7f -5 0 .1, 7r -4 0, 7f -15 0 .1, 7r 5 0",
    ),
    Sample(
        "a deep hole with K",
        "O1\nG21 G99\nT0505\nG97 S900 M3\nG0 X0 Z5.\nG74 Z-15. K10. F.1\nM30",
        "5r 5 0, 6f -5 0 .1, 6r -4.5 0, 6f -15 0 .1, 6r 5 0",
    ),
    Sample(
        "drilling with R from the start",
        "O1\nG21 G99\nT0505\nG97 S900 M3\nG0 X0 Z10.\nG83 Z-15. R-8. Q10000 F.1\nG80\nG0 Z50.\nM30",
        "5r 10 0, 6r 2 0, 6f -8 0 .1, 6r 2 0, 6r -7.5 0, 6f -15 0 .1, 6r 10 0, 8r 50 0",
    ),
    Sample(
        "drilling with R as a place",
        "O1\nG21 G95 G90\nT0505\nG97 S900 M3\nG0 X0 Z10.\nG99 G83 Z-8. R2. F.1\nG80 G0 Z50.\nM30",
        "5r 10 0, 6r 2 0, 6f -8 0 .1, 6r 2 0, 7r 50 0",
        dialect="system-b",
    ),
    Sample(
        "tapping",
        "O1\nG21 G99\nT0606\nG97 S300 M3\nG0 X0 Z8.\nG84 Z-20. R-3. F1.25\nG80\nM30",
        "5r 8 0, 6r 5 0, 6t -20 0 1.25, 6t 5 0 1.25, 6r 8 0",
    ),
    Sample(
        "boring",
        "O1\nG21 G99\nT0606\nG97 S300 M3\nG0 X20. Z5.\nG85 Z-20. R-3. F.1\nG80\nM30",
        "5r 5 20, 6r 2 20, 6f -20 20 .1, 6f 2 20 .1, 6r 5 20",
    ),
    Sample(
        "the whole thread",
        "O1\nG21 G99\nT0404\nG97 S600 M3\nG0 X26. Z4.\nG76 P010000 Q100 R0\nG76 X22. Z-18. P1000 Q600 F1.5\nM30",
        "5r 4 26, 7r 4 22.8, 7t -18 22.8 1.5, 7r -18 26, 7r 4 26, 7r 4 22.303, 7t -18 22.303 1.5, 7r -18 26, 7r 4 26, "
        "7r 4 22, 7t -18 22 1.5, 7r -18 26, 7r 4 26, 7r 4 22, 7t -18 22 1.5, 7r -18 26, 7r 4 26",
    ),
    Sample(
        "a contour that falls",
        A
        + "G0 X44. Z2.\nG71 U1. R.5\nG71 P10 Q20 U0 W0 F.3\nN10 G0 X40. Z2.\nG1 Z-5.\nX36. Z-10.\nX40. Z-15.\nN20 Z-20.\nM30",
        "6r 2 44, 8r 2 42, 8f -20 42 .3, 8f -19.5 43 .3, 8r -19.5 44, 8r 2 44, 8r 2 40, 8f -20 40 .3, 8f -19.5 41 .3, 8r -19.5 44, 8r 2 44, "
        "8r -7.5 44, 8r -7.5 41, 8f -7.5 38 .3, 8f -12.5 38 .3, 8f -12 39 .3, 8r -12 44, 8r 2 44, "
        "8r 2 40, 8f -5 40 .3, 8f -10 36 .3, 8f -15 40 .3, 8f -20 40 .3, 8r -20 44, 8r 2 44",
    ),
    Sample(
        "a pass in system B",
        B + "G0 X60. Z2.\nG77 X56. Z-20. F.2\nG0 X80.\nM30",
        "6r 2 60, 7r 2 56, 7f -20 56 .2, 7f -20 60 .2, 7r 2 60, 8r 2 80",
    ),
    Sample(
        "a pass in system C",
        C + "G0 X60. Z2.\nG20 X56. Z-20. F.2\nG0 X80.\nM30",
        "6r 2 60, 7r 2 56, 7f -20 56 .2, 7f -20 60 .2, 7r 2 60, 8r 2 80",
    ),
]

CORNERS = [
    Sample(
        "a rounding",
        A + "G0 X20. Z2.\nG1 Z-20. ,R3. F.2\nX40.\nM30",
        "6r 2 20, 7f -17 20 .2, 7f -20 26 .2, 8f -20 40 .2",
    ),
    Sample(
        "a chamfer",
        A + "G0 X20. Z2.\nG1 Z-20. ,C2. F.2\nX40.\nM30",
        "6r 2 20, 7f -18 20 .2, 7f -20 24 .2, 8f -20 40 .2",
    ),
    Sample(
        "corners without a comma",
        A + "G0 X20. Z2.\nG1 Z-20. R3. F.2\nX40. C1.\nZ-30.\nM30",
        "6r 2 20, 7f -17 20 .2, 7f -20 26 .2, 8f -20 38 .2, 8f -21 40 .2, 9f -30 40 .2",
        "7q, 8q",
    ),
    Sample("a line at an angle", A + "G0 X20. Z0.\nG1 X30. ,A135. F.2\nM30", "6r 0 20, 7f -5 30 .2"),
    Sample("a line at an angle to a Z", A + "G0 X20. Z0.\nG1 Z-10. ,A170. F.2\nM30", "6r 0 20, 7f -10 23.527 .2"),
    Sample(
        "two lines at angles",
        A + "G0 X20. Z0.\nG1 ,A180. F.2\nX40. Z-20. ,A135.\nM30",
        "6r 0 20, 7f -10 20 .2, 8f -20 40 .2",
    ),
    Sample(
        "two lines at angles with a rounding",
        A + "G0 X20. Z0.\nG1 ,A180. ,R2. F.2\nX40. Z-20. ,A90.\nM30",
        "6r 0 20, 7f -18 20 .2, 7f -20 24 .2, 8f -20 40 .2",
    ),
    Sample(
        "a large arc", A + "G0 X20. Z0.\nG1 Z-10. F.2\nG2 X20. Z-20. R-6.\nM30", "6r 0 20, 7f -10 20 .2, 8f -20 20 .2"
    ),
    Sample(
        "an arc by its centre",
        A + "G0 X20. Z0.\nG1 Z-10. F.2\nG2 X30. Z-15. I5. K0\nM30",
        "6r 0 20, 7f -10 20 .2, 8f -15 30 .2",
    ),
    Sample("a rounding that does not fit", A + "G0 X20. Z2.\nG1 Z-2. ,R30. F.2\nX40.\nM30", None, "7n"),
    Sample(
        "a corner with nothing behind it",
        A + "G0 X20. Z2.\nG1 Z-20. ,R3. F.2\nG0 X40.\nM30",
        "6r 2 20, 7f -20 20 .2, 8r -20 40",
        "7n",
    ),
]

SUBPROGRAMS = [
    Sample(
        "a call", A + "G0 X50. Z2.\nM98 P100\nG0 X80.\nM30\nO100\nG1 Z-5. F.2\nM99", "6r 2 50, 11f -5 50 .2, 8r -5 80"
    ),
    Sample(
        "a call again and again",
        A + "G0 X50. Z0\nM98 P100 L3\nM30\nO100\nG1 W-5. F.2\nM99",
        "6r 0 50, 10f -5 50 .2, 10f -10 50 .2, 10f -15 50 .2",
    ),
    Sample(
        "repeats in front of the number",
        A + "G0 X50. Z0\nM98 P20100\nM30\nO100\nG1 W-5. F.2\nM99",
        "6r 0 50, 10f -5 50 .2, 10f -10 50 .2",
    ),
    Sample(
        "a call in a call",
        A + "G0 X50. Z0\nM98 P100\nM30\nO100\nM98 P200\nG0 X60.\nM99\nO200\nG1 W-5. F.2\nM99",
        "6r 0 50, 14f -5 50 .2, 11r -5 60",
    ),
    Sample("a call of what is not there", A + "G0 X50. Z0\nM98 P777\nM30", "6r 0 50", "7n"),
    Sample(
        "back to a block",
        A + "G0 X50. Z0\nM98 P100\nG1 Z-99. F.2\nN50 G0 X70.\nM30\nO100\nG1 Z-5. F.2\nM99 P50",
        "6r 0 50, 12f -5 50 .2, 9r -5 70",
    ),
    Sample("variables", A + "#1=50.\n#2=#1-2.*3\nG0 X#1 Z2.\nG1 X#2 Z-[#1/10] F.2\nM30", "8r 2 50, 9f -5 44 .2"),
    Sample(
        "a loop",
        A + "#1=3\nG0 X50. Z0\nWHILE [#1 GT 0] DO1\nG1 Z-[10-#1] F.2\n#1=#1-1\nEND1\nM30",
        "7r 0 50, 9f -7 50 .2, 9f -8 50 .2, 9f -9 50 .2",
    ),
    Sample(
        "a jump",
        A + "#1=1\nG0 X50. Z0\nN10 G1 Z-#1 F.2\n#1=#1+1\nIF [#1 LE 3] GOTO 10\nM30",
        "7r 0 50, 8f -1 50 .2, 8f -2 50 .2, 8f -3 50 .2",
    ),
    Sample(
        "a call with arguments",
        A + "G0 X50. Z0\nG65 P900 A-5. B60.\nM30\nO900\nG1 Z#1 F.2\nG0 X#2\nM99",
        "6r 0 50, 10f -5 50 .2, 11r -5 60",
    ),
    Sample(
        "a call at every place",
        A + "G0 X50. Z0\nG66 P900 B40. F.1\nX50. Z-10.\nZ-20.\nG67\nG0 X60.\nM30\nO900\nG1 X#2 F#9\nG0 X50.\nM99",
        "6r 0 50, 8r -10 50, 14f -10 40 .1, 15r -10 50, 9r -20 50, 14f -20 40 .1, 15r -20 50, 11r -20 60",
    ),
    Sample(
        "chamfers of old, by the other axis",
        A + "G0 X20. Z2.\nG1 Z-20. I2. F.2\nX40. K-1.\nZ-40.\nM30",
        "6r 2 20, 7f -18 20 .2, 7f -20 24 .2, 8f -20 38 .2, 8f -21 40 .2, 9f -40 40 .2",
        "7q, 8q",
    ),
    Sample(
        "a chamfer of old that leads the other way", A + "G0 X20. Z2.\nG1 Z-20. I-2. F.2\nX40.\nM30", None, "7q, 7n"
    ),
    Sample("where the tool is", A + "G0 X50. Z-3.\n#1=#5041-10.\nG1 X#1 Z[#5042-1] F.2\nM30", "6r -3 50, 8f -4 40 .2"),
    Sample("a tool below nought", A + "G0 X50. Z0\nT-202\nG1 Z-3. F.2\nM30", "6r 0 50, 8f -3 50 .2", "7q"),
    Sample("functions", A + "#1=20.*SIN[30.]\n#2=SQRT[16.]+ATAN[1.]/[1.]\nG0 X[#1+40.] Z#2\nM30", "8r 49 50"),
    Sample("a vacant variable leaves its word out", A + "G0 X50. Z2.\nG1 Z#7 X48. F.2\nM30", "6r 2 50, 7f 2 48 .2"),
    Sample("a variable nobody set", A + "G0 X50. Z2.\nG1 Z-#500 F.2\nM30", None, "7q"),
    Sample(
        "a variable that is given",
        A + "G0 X50. Z2.\nG1 Z-#500 F.2\nM30",
        "6r 2 50, 7f -12.5 50 .2",
        given={"variables": {"500": 12.5}},
    ),
    Sample("a loop without end", A + "G0 X50. Z2.\nWHILE [1 EQ 1] DO1\nEND1\nM30", None, "8n"),
    Sample("a jump to nowhere", A + "GOTO 99\nM30", "", "6n"),
    Sample(
        "the same number twice", A + "N10 G0 X50. Z2.\nN10 G1 Z-3. F.2\nGOTO 20\nN20 M30", "6r 2 50, 7f -3 50 .2", "7s"
    ),
]

TEXT = [
    Sample("leader and trailer", "PRINTED BY SOMEBODY\n%\n" + A + "G0 X50. Z2.\nM30\n%\nAND SOME MORE", "8r 2 50"),
    Sample(
        "lower case without blanks",
        "o1\ng21g40g99\nt0101\ng50s2000\ng96s150m3\ng0x50.z2.\ng1z-5.f.2\nm30",
        "6r 2 50, 7f -5 50 .2",
    ),
    Sample("a colon for the number", A.replace("O1", ":1234") + "G0 X50. Z2.\nM02", "6r 2 50"),
    Sample(
        "comments of both kinds",
        A + "G0 X50. (OUT) Z2. ; come near\n(nothing here)\n; nor here\nG1 Z-5. F.2\nM30",
        "6r 2 50, 9f -5 50 .2",
    ),
    Sample(
        "blocks that a switch leaves out",
        A + "G0 X50. Z2.\n/G1 Z-5. F.2\n/2 G0 X70.\nN5 /3 G0 X90.\nM30",
        "6r 2 50, 8r 2 70",
        given={"skip": [1, 3]},
    ),
    Sample("blocks that no switch leaves out", A + "G0 X50. Z2.\n/G1 Z-5. F.2\nM30", "6r 2 50, 7f -5 50 .2"),
    Sample(
        "places without a point are the rule",
        "O1\nG21 G99\nT0101\nG97 S500 M3\nG0 X50 Z2\nG1 Z-20 F0.2\nX52\nM30",
        "5r 2 50, 6f -20 50 .2, 7f -20 52 .2",
    ),
    Sample(
        "places in thousandths",
        "O1\nG21 G99\nT0101\nG97 S500 M3\nG0 X50000 Z2000\nG1 Z-20000 F0.2\nX52000\nM30",
        "5r 2 50, 6f -20 50 .2, 7f -20 52 .2",
    ),
    Sample("blanks between letter and number", A + "G 0 X 50. Z 2.\nG1 Z - 5. F .2\nM30", "6r 2 50, 7f -5 50 .2"),
    Sample("prose", "Dear colleague,\nplease make ten of these by Friday.\nThank you.", "", "1n"),
    Sample("nothing", "\n\n", "", "1n"),
]

DIALECTS = [
    Sample(
        "tool and offset by T and D",
        ISO + "G0 X50 Z2\nG1 Z-5 F0.2\nT2 D2 M6\nG0 X40 Z2\nM30",
        "6r 2 50, 7f -5 50 .2, 9r 2 40",
    ),
    Sample(
        "units at power-on",
        "%1\nG90 G95 G40\nT1 D1 M6\nG97 S500 M3\nG0 X50 Z2\nG1 Z-5 F0.2\nM30",
        "5r 2 50, 6f -5 50 .2",
    ),
    Sample("a dwell by F", ISO + "G0 X50 Z2\nG4 F2.5\nM30", "6r 2 50, 7d 2 50 2.5"),
    Sample(
        "a lead with a letter of its own",
        ISO + "G97 S600\nG0 X23. Z5.\nG33 Z-18. K1.5\nG0 X26.\nZ5.\nX22.5\nG33 Z-18.\nX30. I2.\nM30",
        "7r 5 23, 8t -18 23 1.5, 9r -18 26, 10r 5 26, 11r 5 22.5, 12t -18 22.5 1.5, 13t -18 30 2",
    ),
    Sample(
        "a lead behind F where it has a letter of its own",
        ISO + "G97 S600\nG0 X23. Z5.\nG33 Z-18. F1.5\nM30",
        "7r 5 23, 8t -18 23 1.5",
    ),
    Sample(
        "a taper thread that runs out",
        "O1\nG21 G99\nT0404\nG97 S500 M3\nG0 X30. Z5.\nG76 P011060 Q100 R0\nG76 X24. Z-20. R-1. P1000 Q1000 F2.\nM30",
        "5r 5 30, 7r 5 22, 7t -18 23.84 2, 7t -20 27.84 2, 7r -20 30, 7r 5 30, "
        "7r 5 22, 7t -18 23.84 2, 7t -20 27.84 2, 7r -20 30, 7r 5 30",
    ),
    Sample(
        "a thread in system B",
        "O1\nG21 G95 G90\nT0404\nG97 S600 M3\nG0 X23. Z5.\nG33 Z-18. F1.5\nG0 X26.\nM30",
        "5r 5 23, 6t -18 23 1.5, 7r -18 26",
    ),
    Sample(
        "inches nobody says",
        "O1\nG40 G99\nT0101\nG50 S2000\nG96 S400 M3\nG0 X2.0 Z.1\nG1 Z-1. F.012\nM30",
        "6r 2.54 50.8, 7f -25.4 50.8 .3048",
        "7q",
    ),
    Sample("system B by its words", B + "G0 X50. Z2.\nG91 G1 Z-3. F.2\nG90\nM30", "6r 2 50, 7f -1 50 .2"),
]

BROKEN = [
    Sample("a letter O in a number", A + "G0 X5O. Z2.\nM30", "", "6n"),
    Sample("a letter twice", A + "G0 X50. X52. Z2.\nM30", "6r 2 52", "6s"),
    Sample("a word of another machine", A + "G0 X50. Z2.\nM68\nM30", "6r 2 50", "7q"),
    Sample("a G word nobody knows", A + "G0 X50. Z2.\nG181 X3.\nM30", None, "7n"),
    Sample("a word nothing takes", A + "G0 X50. Z2. Q5.\nM30", "6r 2 50", "6n"),
    Sample("a feed in a rapid", A + "G0 X50. Z2. F.2\nM30", "6r 2 50", "6s"),
    Sample("a feed of twenty", A + "G0 X50. Z2.\nG1 Z-5. F20.\nM30", "6r 2 50, 7f -5 50 20", "7s"),
    Sample("a sign lost", A + "G0 X50. Z2.\nG1 Z-5. F.2\nX52.\nZ-20.\nX54.\nZ25.\nX56.\nZ-30.\nM30", None, "11s"),
    Sample("no clamp", "O1\nG21G99\nT0101\nG96 S150 M3\nG0 X50. Z2.\nG1 Z-5. F.2\nM30", "5r 2 50, 6f -5 50 .2", "6s"),
    Sample(
        "a thread whose lead changes",
        "O1\nG21 G99\nT0404\nG97 S600 M3\nG0 X26. Z5.\nG92 X23.4 Z-18. F1.5\nX23. F1.25\nM30",
        None,
        "7s",
    ),
    Sample(
        "compensation left on",
        A + "G42 G0 X50. Z2.\nG1 Z-5. F.2\nG0 X80. Z50.\nM30",
        None,
        "9s",
        given={"tools": [{"station": 1, "nose_mm": 0.4, "tip": 3}]},
    ),
    Sample("a comment that is not closed", A + "G0 X50. Z2. (come near\nM30", "6r 2 50", "6n"),
    Sample("an arc that cannot be", A + "G0 X20. Z0.\nG1 Z-10. F.2\nG2 X60. Z-15. R3.\nM30", None, "8n"),
    Sample("a cycle without its contour", A + "G0 X44. Z2.\nG71 U2. R1.\nG71 P10 Q99 U0 W0 F.3\nM30", "6r 2 44", "8n"),
    Sample("cut short", A + "G0 X50. Z2.\nG1 Z-5. F.2", "6r 2 50, 7f -5 50 .2", "7n"),
    Sample("a place before any move", "O1\nG21 G99\nT0101\nX50. Z2.\nM30", "", "4n"),
    Sample("a division by nothing", A + "#1=5./0\nM30", "", "6n"),
]

HABITS = [
    Sample(
        "more datums",
        A + "G54 G0 X50. Z2.\nG1 Z-3. F.2\nG54.1 P7 G0 X50. Z2.\nM30",
        "6r 2 50, 7f -3 50 .2, 8r 2 50",
        "8q",
    ),
    Sample(
        "the program that is run stands second",
        "O100\nG1 W-5. F.2\nM99\nO1\nG21 G99\nT0101\nG97 S500 M3\nG0 X50. Z0\nM98 P100\nM30",
        "8r 0 50, 2f -5 50 .2",
    ),
    Sample(
        "a dwell in thousandths",
        "O1\nG21 G99\nT0101\nG97 S500 M3\nG0 X50000 Z2000\nG4 X1500\nM30",
        "5r 2 50, 6d 2 50 1.5",
        dialect="system-a-steps",
    ),
    Sample("signs of a text processor", A + "G0\u00a0X50. Z2.\nG1 Z\u22125. F.2\nM30", "6r 2 50, 7f -5 50 .2"),
    Sample("lines that only print", A + "POPEN\nDPRNT[X*#5041[33]]\nPCLOS\nG0 X50. Z2.\nM30", "9r 2 50"),
    Sample(
        "every tool has its own N10",
        A + "G0 X44. Z2.\nG71 U4. R1.\nG71 P10 Q20 U0 W0 F.3\nN10 G0 X36.\nN20 G1 Z-10.\nG70 P10 Q20\nT0202\n"
        "G0 X34. Z2.\nG71 U4. R1.\nG71 P10 Q20 U0 W0 F.3\nN10 G0 X26.\nN20 G1 Z-5.\nG70 P10 Q20\nM30",
        "6r 2 44, 8r 2 36, 8f -10 36 .3, 8f -9 38 .3, 8r 2 38, 8r 2 44, 8r 2 36, 8f -10 36 .3, 8r -10 44, 8r 2 44, "
        "11r 2 36, 11f -10 36 .3, 11r -10 44, 11r 2 44, "
        "13r 2 34, 15r 2 26, 15f -5 26 .3, 15f -4 28 .3, 15r 2 28, 15r 2 34, 15r 2 26, 15f -5 26 .3, 15r -5 34, 15r 2 34, "
        "18r 2 26, 18f -5 26 .3, 18r -5 34, 18r 2 34",
        "16s",
    ),
    Sample(
        "a bore roughed with its allowance inward",
        A + "G0 X16. Z2.\nG71 U2. R.5\nG71 P10 Q20 U-.4 W.1 F.2\nN10 G0 X24.\nN20 G1 Z-15.\nM30",
        "6r 2 16, 8r 2 20, 8f -14.9 20 .2, 8f -14.4 19 .2, 8r 2 19, 8r 2 23.6, 8f -14.9 23.6 .2, 8f -14.4 22.6 .2, "
        "8r 2 22.6, 8r 2 16, 8r 2.1 16, 8r 2.1 23.6, 8f -14.9 23.6 .2, 8r -14.9 16, 8r 2 16",
    ),
    Sample(
        "several starts",
        "O1\nG21 G99\nT0404\nG97 S600 M3\nG0 X23. Z5.\nG32 Z-18. F3. Q180000\nG0 X26.\nM30",
        "5r 5 23, 6t -18 23 3, 7r -18 26",
    ),
    Sample(
        "an inside thread by passes",
        "O1\nG21 G99\nT0404\nG97 S600 M3\nG0 X20. Z5.\nG92 X22.6 Z-18. F1.5\nX23.\nM30",
        "5r 5 20, 6r 5 22.6, 6t -18 22.6 1.5, 6r -18 20, 6r 5 20, 7r 5 23, 7t -18 23 1.5, 7r -18 20, 7r 5 20",
    ),
    Sample("switches that are off say nothing", A + "G49 G69 G23 G25\nG0 X50. Z2.\nM30", "7r 2 50"),
]

CORPUS = [*MODALITY, *DATUMS, *CYCLES, *CORNERS, *SUBPROGRAMS, *TEXT, *DIALECTS, *HABITS, *BROKEN]
