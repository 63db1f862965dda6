"""What each station is for, in a few sentences: its field terms are explained where they stand."""

from __future__ import annotations

PURPOSES = {
    "plan": (
        "Write down the question and the film before anything is exposed.",
        "Change any underlined word with ↑ ↓ or by typing.",
        "A bracket is a row of frames of one target, each a known number of stops apart.",
        "Blank frames get no light, and their density is called base plus fog.",
        "The right side shows how narrow the answer can be expected to be from these frames.",
    ),
    "expose": (
        "Work through the frames one by one, with the camera beside you.",
        "Press Space when a frame is exposed, and the strip above shows the frame as exposed.",
        "EI, the exposure index, is the film speed the meter is set to.",
        "Record another setting, a missed frame or a second meter reading where one happened.",
        "Save the script as PDF to work without a screen, and enter its ticks afterwards.",
    ),
    "process": (
        "Read the cautions first, then the recipe for today’s tank.",
        "The clock runs one development and shows what is due next.",
        "A warmer bath develops faster, so the time is corrected to the temperature you enter.",
        "Record the actual time and temperature of every strip, also where they went wrong.",
        "Control strips, clip tests and maker’s times have their own pages above.",
    ),
    "read": (
        "Judge or measure the developed strips in the way you can.",
        "Density is how dark the film is, and 0.30 more lets half the light through.",
        "Without a densitometer, use the light box beside a step wedge, a scan, or verdicts.",
        "A step wedge is a strip of film with known densities.",
        "Every way counts, and each gives its own 95 % range.",
    ),
    "curves": (
        "See the density of each strip against the exposure.",
        "The average gradient is the steepness of the curve, which is the film’s contrast.",
        "The marked shadow point is where the film first shows usable detail.",
        "Frames that lie off the curve may be misread. Exclude a frame only for a reason.",
        "Drag the time below to see what lies between the tested times.",
    ),
    "print": (
        "Judge the film by its prints, where prints are what you want from it.",
        "Set up the enlarger and the paper first.",
        "The time for maximum black is the shortest that prints clear film as black as the paper "
        "can be.",
        "Printed at that time, the first frame that is not quite black shows the EI.",
        "Test strips and workprints are kept with the frame they show.",
    ),
    "finding": (
        "See the EI to set and the time to develop.",
        "The 95 % range says how far the truth may lie from each number.",
        "Change the target contrast or the EI method where yours is another.",
        "A push is longer development of film that got less light, and cannot restore shadows.",
        "Record the decision when you are content. The readings it rests on are kept with it.",
    ),
    "cards": (
        "Make a card to hang in the darkroom, so that somebody else can shoot and develop.",
        "The card shows the recorded decision, or the present answer before one is recorded.",
        "Choose the whole finding, or one push or film alone.",
        "Print the card, or save it as PDF.",
    ),
    "shelf": (
        "Find every test in this notebook, with its answer and where its work stopped.",
        "A roll already shot gets its development time from the sentence at the top.",
        "New test begins with the question.",
        "Film left and bottles show what the cupboard still holds.",
    ),
    "films": (
        "Compare the films tested here, side by side.",
        "Put the table in the order of any column.",
        "Films are compared fairly only at a like contrast, so each row names its strip.",
        "The gallery shows their curves.",
    ),
    "tonight": (
        "Choose a film for the light you expect.",
        "Enter what the meter showed, or point at a scene.",
        "Each picture shows what a film that serves would lose in that light.",
        "The answer is estimated from your own tests.",
    ),
    "cupboard": (
        "Keep the films, developers, bottles, papers, cameras and meters that the tests use.",
        "A batch is one production run of a film, with a number on the box.",
        "Bottles count down by capacity and by age.",
        "Reciprocity correction makes up for the speed a film loses in long exposures.",
    ),
    "learnt": (
        "See what your decided tests tell of the next film in each developer.",
        "Each film is foretold by the others from one of its strips, beside what was found.",
        "Where fewer than nine of ten ranges held, nothing is estimated.",
        "An estimate is never a measurement, and one key leaves all of them out.",
    ),
    "practice": (
        "Practise on a film nobody knows, whose truth is sealed in an envelope.",
        "Plan, expose, develop and read it with the simulated instruments.",
        "Say its EI and time, each with the range you are nine in ten sure of.",
        "The opened envelope shows how far you were off, and what cost most.",
    ),
    "question": (
        "Begin with what you want to know.",
        "Each kind of test shows the strips it takes and what they answer.",
        "A roll already shot needs no test. Use the first sentence.",
    ),
}
