import type { Language } from './language.ts'

const guidance = 'Guidance only: your setting’s policies and local rules come first.'
const house = 'House style.'

/** English: the whole catalogue. Other languages are files beside this one. */
export const en = {
  script: {
    'false-sentence': {
      when: 'A number sentence, in signs or words, is not true.',
      what: {
        sentence: '{sentence} is not true.',
        mended: '{sentence} is not true: {right}.',
        comparison: '“{sentence}” is not true: it is {right}.',
      },
      why: {
        sentence: 'Children copy what they see written.',
        mended: 'Children copy what they see written.',
        comparison: 'Children take it as it is said.',
      },
      fix: 'Write {text}',
    },
    'sentence-table': {
      when: 'A written sentence is true, but the table shows something else.',
      what: {
        number: '{sentence} is true, but the table shows {shown}.',
        parts: '{sentence} is true, but the table shows {shown}.',
        taken: '{sentence} is true, but the table shows {whole} with {gone} taken, {left} left.',
        hops: '{sentence} is true, but the table shows other hops.',
      },
      why: 'The sentence should say what is on the table.',
    },
    'left-larger': {
      when: 'More are said to be left than there were.',
      what: '{said, plural, one {# is} other {# are}} said to be left, but there {start, plural, one {was} other {were}} only {start}.',
      why: 'Taking away cannot leave more than there was.',
    },
    'share-unfair': {
      when: 'Things are to be shared equally that cannot be, and nothing is said of what is left over.',
      what: '{things} cannot be shared equally among {among}: {over, plural, one {# is} other {# are}} left over.',
      why: 'Say what happens to what is left over, or change the number.',
    },
    'all-numbers': {
      when: 'Something is said of all numbers that fails at zero or at odd ones.',
      what: 'This is said of all numbers and is not true of all.',
      why: {
        adding: 'Adding nothing leaves a number as it was.',
        'taking away': 'Taking away nothing leaves a number as it was.',
        sharing: 'Odd numbers leave one over.',
        larger: 'Later they will: say “we haven’t enough here”.',
      },
    },
    'count-skip': {
      when: 'A count that is written out leaves a number out.',
      what: 'The count leaves out {skipped}.',
      why: 'Children learn the run by heart from this.',
      fix: 'Count {text}',
    },
    'count-repeat': {
      when: 'A count says a number twice.',
      what: 'The count says {number} twice.',
      why: 'One number for one thing.',
      fix: 'Count {text}',
    },
    'count-order': {
      when: 'A count goes out of order.',
      what: 'The count is out of order.',
      why: 'Children learn the run by heart from this.',
      fix: 'Count {text}',
    },
    'count-start': {
      when: 'A count that touches things does not start at one.',
      what: 'The count starts at {first}.',
      why: 'Touching things one by one starts at {should}.',
      fix: 'Count {text}',
    },
    'count-end': {
      when: 'A count that touches things ends on another number than there are.',
      what: 'The count ends on {last}, but {there, plural, one {# is} other {# are}} on the table.',
      why: 'The last number said is how many there are.',
      fix: 'Count {text}',
    },
    'count-nothing': {
      when: 'A count touches things and none are on the table.',
      what: 'The count touches things, but none are on the table.',
      why: 'Put them out first.',
    },
    'count-covered': {
      when: 'Covered things are counted one by one.',
      what: 'What is covered cannot be touched and counted one by one: uncover it first.',
      why: 'The table cannot do this, and neither can a child.',
    },
    'claim-table': {
      when: 'A number is said of the table that is not on it.',
      what: '{said} is said, but {there, plural, one {# is} other {# are}} on the table.',
      why: 'What is said should be what is seen.',
    },
    'answer-wrong': {
      when: 'What is told is not what the question before it comes to.',
      what: {
        question: '{said} is told, but the question comes to {right}.',
        table:
          '{said} is told, but the table shows no {said}; {right} {right, plural, one {is} other {are}} there.',
        story: '{said} is said, but the story came to {right}.',
      },
      why: 'What is told is what children believe.',
    },
    'answer-told': {
      when: 'The answers tell another answer than the task has.',
      what: '“{said}” is told as the answer; the task has “{right}”.',
      why: 'A child who was right would be told to be wrong.',
      fix: 'Tell {right}',
    },
    'story-other': {
      when: 'A line says hands do a number, and the hands do another.',
      what: '{said} is said, but the hands next to it do {done}.',
      why: 'What is said should be what is seen.',
    },
    'ways-wrong': {
      when: 'A number of ways does not fit what counts as a way here.',
      what: '{said} ways are said; as ways count here there are {right}.',
      why: 'Whether order counts and whether a part may be empty decides how many there are.',
    },
    'device-never': {
      when: 'A number is said of a die, a spinner or a bowl that it can never give.',
      what: '{said} can never come from {device}.',
      why: 'Children try it out, and wait in vain.',
    },
    'mark-other': {
      when: 'Another number is marked than the one asked for or said.',
      what: '{said} is asked for, but {marked} is marked.',
      why: 'What is shown is the answer children see.',
    },
    'turned-same': {
      when: 'A sentence said to be turned round is not the turn-round.',
      what: 'Turned round, it is {right}.',
      why: 'A turn-round has the same parts the other way about.',
    },
    'number-unaccounted': {
      when: 'A line says a number of the lesson’s things that nothing in its segment gives.',
      what: '{number} {things} {number, plural, one {is} other {are}} said, but nothing here makes {number}.',
      why: 'Put them on the table, or say the number that is there.',
    },
    'table-not-there': {
      when: 'Something is taken, turned or crossed out that is not there.',
      what: {
        turn: 'Only {have} on the table: {count} cannot be turned over.',
        cross: 'Only {have, plural, one {# is} other {# are}} left to cross out, not {count}.',
        ring: 'There are not {count} things in one place to ring.',
        'ring-left': 'Only {have, plural, one {# is} other {# are}} left outside a ring, not {count}.',
        divide: 'There are not {count} things in one place to divide.',
        rearrange: 'Nothing is on the table to rearrange.',
        take: 'Only {have} {where}: {count} cannot be taken.',
        'take-none': 'Nothing is {where} to take.',
        cover: 'Only {have} can be seen: {count} cannot be covered.',
        join: 'Nothing is on the table to bring together.',
        share: 'Only {have} on the table: {count} cannot be shared.',
        pair: 'Nothing is on the table to pair up.',
        swap: 'Ten ones in one place are needed to swap them for a ten.',
      },
      why: 'The table cannot do this, and neither can a child.',
    },
    'table-no-room': {
      when: 'More is put in a place than it holds.',
      what: {
        more: '{place} has room for {room} more, not {count}.',
        whole: '{place} has room for {room}, not {count}.',
        places: 'The {mat} has {room, plural, one {# place} other {# places}}, not {count}.',
        pairs: 'The pair plate has room for {room}, not {count}.',
      },
      why: 'The table cannot do this, and neither can a child.',
    },
    'table-not-conserved': {
      when: 'A split makes more or fewer than there are.',
      what: '{parts} are {sum}, but {have, plural, one {# is} other {# are}} on the table.',
      why: 'The table cannot do this, and neither can a child.',
    },
    'table-no-mat': {
      when: 'An action needs a mat that is not on the table.',
      what: {
        mat: 'There is no {mat} on the table yet.',
        nothing: 'Nothing is on the table yet.',
        'not-on': 'Nothing can be put on the {mat}.',
        place: 'The {mat} has no such place.',
        'dot-card': 'There is no dot card on the table to turn round.',
        cover: 'There is nothing on the table to cover.',
        uncover: 'Nothing is covered.',
        parts: 'Three parts need a part-whole, plates or shelves on the table.',
        among: 'Sharing is among 2 to 6 here, not {among}.',
      },
      why: 'The table cannot do this, and neither can a child.',
    },
    'table-off-the-line': {
      when: 'A hop or mark leaves the number line or square.',
      what: 'The line runs from {from} to {to}; {number} is not on it.',
      why: 'The table cannot do this, and neither can a child.',
    },
    'table-no-card': {
      when: 'A slip is drawn that is no longer in the bowl, or a spinner is to show what it has not.',
      what: { bowl: 'There is no {text} left in the bowl.', spinner: 'The spinner has no {text}.' },
      why: 'The table cannot do this, and neither can a child.',
    },
    'unread-line': {
      when: 'A do or count line is not understood, so that it is only timed.',
      what: {
        none: 'This was not understood, so nothing is drawn and it is only timed.',
        part: 'This was understood only in part, so nothing is drawn: {words} was left over.',
      },
      why: 'Say what is put, taken, moved, turned, covered or marked, how many, and where. The readings beside the table can be chosen.',
    },
    'held-unsaid': {
      when: 'A number is held that no line says.',
      what: '{number} is held, but no line of this segment says it.',
      why: 'Children can only hold a number they have heard.',
    },
    'hidden-unsaid': {
      when: 'Things are hidden and no line ever says how many.',
      what: '{hidden, plural, one {# is} other {# are}} hidden here, and no line of this segment ever says so.',
      why: 'A hidden number has to be found or told.',
    },
    'never-uncovered': {
      when: 'What was covered is never shown again to be checked.',
      what: 'What is covered here is never uncovered.',
      why: 'A count that cannot be checked proves nothing: show it before the table is cleared.',
      fix: 'Uncover it before clearing',
    },
    'no-wait': {
      when: 'A question has no wait after it.',
      what: 'A question with no wait.',
      why: 'Under three seconds, most children stop trying.',
      fix: 'Add a wait of {text}',
    },
    'short-wait': {
      when: 'A wait is under three seconds.',
      what: 'A wait of {wait} s is too short to think in.',
      why: 'Three seconds is the least; five is kinder.',
      fix: 'Wait {text}',
    },
    'wait-alone': {
      when: 'A wait follows nothing to think about.',
      what: 'A wait with no question before it.',
      why: 'Children need to know what to think about.',
    },
    'answer-early': {
      when: 'A question is answered at once.',
      what: 'Answered at once. Leave time to think.',
      why: 'Under three seconds, most children stop trying.',
      fix: 'Add a wait of {text}',
    },
    'answer-before-wait': {
      when: 'The answer comes before the wait.',
      what: 'The answer comes before the wait.',
      why: 'Time to think after the answer is no time to think.',
      fix: 'Leave the answer out here',
    },
    'answer-given': {
      when: 'The answer to a task was said just before it.',
      what: 'The answer to this task was said just before it.',
      why: 'Change the numbers, or move the answer.',
    },
    'pause-empty': {
      when: 'The film stops with nothing to do.',
      what: 'The film stops with nothing to do.',
      why: 'Say what to do, with what, and when to start again.',
    },
    'table-not-cleared': {
      when: 'The next example starts on a table that still holds the last.',
      what: 'The next example starts with {there} still on the table.',
      why: 'Children count what is there.',
      fix: 'Clear the table first',
    },
    'not-listed': {
      when: 'A thing is used that the list of things does not name.',
      what: '“{thing}”: used here, but not among the things needed.',
      why: 'A home that has not got it out cannot join in.',
      fix: 'List {count} {thing}',
    },
    'needs-line': {
      when: 'What is said to be needed is not what the lesson uses.',
      what: {
        fewer: '{said} are asked for; up to {needed} are out at once.',
        more: '{said} are asked for; no more than {needed} are ever out at once.',
      },
      why: 'A home that fetched what it was told must be able to go on.',
      fix: 'Ask for {needed}',
    },
    'too-few-listed': {
      when: 'More of a thing are out at once than the list names.',
      what: '{needed} {thing} are out at once here; {listed} are listed.',
      why: 'Most at once, over the whole lesson.',
      fix: 'List {count}',
    },
    'listed-unused': {
      when: 'A thing is listed and never used.',
      what: '“{thing}”: listed, but never used.',
      why: 'Every thing asked for costs a home a minute.',
      fix: 'Take {thing} off the list',
    },
    'asked-late': {
      when: 'A thing is asked for only after the pause for fetching, or after the pause that uses it.',
      what: '“{thing}”: asked for only after the pause for fetching things.',
      why: 'Nobody goes to the kitchen twice: name it with the other things.',
      fix: 'List {thing}',
    },
    'example-repeat': {
      when: 'A fact stands twice in the example set.',
      what: '{example} stands twice in the example set.',
      why: 'The second teaches nothing new.',
    },
    'example-range': {
      when: 'An example goes beyond the aim’s range.',
      what: '{number} is beyond the aim’s {upTo}.',
      why: 'The aim says how far numbers go.',
    },
    'example-aim': {
      when: 'The set lacks what the aim says it must have.',
      what: 'No example {wish}, and the aim says one should.',
      why: 'The hard case is the point of the lesson.',
    },
    'too-many-alike': {
      when: 'More than eight examples of one kind.',
      what: '{count} examples of one kind.',
      why: 'After eight of the same, nobody is thinking any more.',
    },
    'zero-later': {
      when: 'Zero is a part, and the house leaves it for later.',
      what: 'Zero is a part in {example}; this setting leaves it for later.',
      why: house,
    },
    'turn-round-twice': {
      when: 'A turn-round is in the set, and the house counts the two as one way.',
      what: '{example} is a turn-round of one before it; this setting counts the two as one way.',
      why: house,
    },
    'device-example': {
      when: 'An example cannot come from the die, cards, spinner or bowl.',
      what: '{examples}: the device can never start {count, plural, one {it} other {them}}.',
      why: 'What is filmed would have to be arranged. Change the device or the example.',
    },
    'device-limits': {
      when: 'Some of the ways to be found can never come from the device.',
      what: '{missed} of the {ways} ways can never come with this device.',
      why: {
        known: '{reason}',
        unknown: 'Children playing it will not find them all.',
      },
    },
    'ways-unsaid': {
      when: '“How many ways” is asked without saying whether order counts and zero is allowed.',
      what: {
        both: '“How many ways” is asked without saying whether turned round is a new way and whether a part may be nothing.',
        order: '“How many ways” is asked without saying whether turned round is a new way.',
        zero: '“How many ways” is asked without saying whether a part may be nothing.',
      },
      why: 'Without it there is no right answer.',
      fix: 'Say it',
    },
    'challenge-easy': {
      when: 'The challenge has smaller numbers than the lesson.',
      what: 'The challenge goes to {most}; the lesson before it goes to {main}.',
      why: 'A challenge that is easier than the lesson is a rest.',
    },
    'task-no-answer': {
      when: 'A home task has nothing to send back.',
      what: 'A home task with nothing to send back.',
      why: 'Without a number, a choice or a photo you will learn nothing from it.',
    },
    'task-answer': {
      when: 'The answer of a task is another number than its line or the table comes to.',
      what: {
        sentence: 'The answer is set to {answer}; the number sentence comes to {comesTo}.',
        story: 'The answer is set to {answer}; the words come to {comesTo}.',
        table: 'The answer is set to {answer}; {comesTo, plural, one {# lies} other {# lie}} on the table.',
      },
      why: {
        sentence: 'A home that finds {comesTo} would be told it is wrong.',
        story: 'A home that finds {comesTo} would be told it is wrong.',
        table: 'A home that finds {comesTo} would be told it is wrong.',
      },
      fix: 'Make it {comesTo}',
    },
    'choice-answer': {
      when: 'A choice is marked right that is not, or a right one is not marked.',
      what: {
        false: '“{choice}” is marked right, and it is not.',
        missed: '“{choice}” is right too, and is not marked.',
      },
      why: {
        false: 'Homes would be told that the right answer is wrong.',
        missed: 'A home that chooses it would be told it is wrong.',
      },
      fix: 'Mark what is right',
    },
    'photo-faces': {
      when: 'A photo is asked for without a word about faces.',
      what: 'A photo is asked for without a word about faces.',
      why: 'Say that no faces should be in it.',
      fix: 'Add “with no faces in it”',
    },
    'no-hand-over': {
      when: 'The film turns to grown-ups without saying so.',
      what: 'The film turns to grown-ups without saying so.',
      why: 'Children keep listening unless told it is not for them.',
      fix: 'Add a hand-over line',
    },
    'no-hand-back': {
      when: 'The film turns back to children without calling them.',
      what: 'The film turns back to children without calling them.',
      why: 'They have stopped listening.',
      fix: 'Call them back',
    },
    'briefing-answer': {
      when: 'The grown-ups’ part gives an answer away before the children’s film.',
      what: 'The grown-ups’ part gives an answer away before the children’s film.',
      why: 'A child sits beside them: use other numbers, or send it as a file of its own.',
    },
    'film-long': {
      when: 'The film is over the limit for the age.',
      what: 'The film runs {filmSeconds}; the limit at age {age} is {limitSeconds}.',
      why: 'Past it, most children of this age have left.',
    },
    'segment-long': {
      when: 'A segment runs over four minutes.',
      what: '“{title}” runs {filmSeconds}; {limitSeconds} is the limit.',
      why: 'Part it in two.',
    },
    'talk-long': {
      when: 'The teacher talks too long without a question or anything to do.',
      what: 'You talk for {talk} s without a question or anything to do; {limit} s is the limit.',
      why: 'Ask something, or give hands something to do.',
    },
    'house-word': {
      when: 'An operation or result is named otherwise than the house names it.',
      what: '“{word}” is used; this setting says “{house}” for {operation}.',
      why: 'One word for one thing, until it is secure.',
      fix: 'Say “{house}”',
    },
    'fewer-less': {
      when: '“Less” is said of things that are counted, where the house says “fewer”.',
      what: '“Less” is said of things that are counted; this setting says “fewer”.',
      why: 'Fewer for what you count, less for what you do not.',
      fix: 'Say “fewer”',
    },
    'pairs-name': {
      when: 'Pairs that make a total are called otherwise than the house calls them.',
      what: '“{word}” is used; this setting calls them “{house}”.',
      why: 'One name for one thing.',
      fix: 'Say “{house}”',
    },
    'symbol-stage': {
      when: 'Signs are written before the house shows them.',
      what: {
        never: 'Signs are written; this setting shows none.',
        later: 'Signs are written; at {age} this setting waits until the words are secure.',
      },
      why: 'Say it in words and write numerals alone.',
      fix: 'Leave this line out',
    },
    'unknown-left': {
      when: 'The result or unknown stands on the left, and the house keeps the result on the right.',
      what: 'The result or the unknown stands on the left; this setting keeps the result on the right.',
      why: house,
    },
    'counting-on': {
      when: 'Counting on is said by the other rule than the house’s.',
      what: {
        next: 'The count says the held {held} first; this setting’s first number is the next one, {next}.',
        held: 'The count starts at {next}; this setting says the held number {held} first.',
      },
      why: 'One rule for prompter, film and home.',
      fix: 'Count {text}',
    },
    'word-early': {
      when: 'A new word is used before it is brought in, or never is.',
      what: {
        later: '“{word}” is used here and brought in only later.',
        never: '“{word}” is new in this lesson and never said what it means.',
      },
      why: {
        later: 'Bring a word in before it is used.',
        never: 'Say once what it means, with its gesture: “{word} means …”.',
      },
    },
    'praise-unseen': {
      when: 'Work is praised that a film cannot have seen.',
      what: 'Praise for work the film has not seen.',
      why: 'Name what was done instead: “You counted with me.”',
    },
    rivalry: {
      when: 'Speed or winning is asked for, and the house plays without.',
      what: 'Speed or winning is asked for; this setting plays without.',
      why: house,
    },
    fingers: {
      when: 'Fingers are forbidden.',
      what: 'Fingers are forbidden here.',
      why: 'Fingers are a way of working, never a fault.',
    },
    'helper-word': {
      when: 'A helper is named whom not every child has.',
      what: 'Not every child has this helper.',
      why: 'Say “{helper}”.',
    },
    'caution-height': {
      when: 'Standing on furniture.',
      what: 'Standing on furniture: offer a way to do it on the floor.',
      why: guidance,
    },
    'caution-never': {
      when: 'Magnets or button cells.',
      what: 'Magnets and button cells are never counters.',
      why: guidance,
    },
    'caution-breakable': {
      when: 'Glass or marbles.',
      what: 'Glass and marbles: offer a plastic tub and larger things.',
      why: guidance,
    },
    'caution-food': {
      when: 'Food as counters.',
      what: 'Food as counters: choking shapes, allergies and shared bowls. Follow your setting’s food policy.',
      why: guidance,
    },
    'caution-sharp': {
      when: 'Scissors, pins, string or knives.',
      what: 'Scissors, pins and string want a grown-up beside the child.',
      why: guidance,
    },
    'caution-space': {
      when: 'A moving game with no seated way beside it.',
      what: {
        game: 'Moving games need clear floor: offer a seated way too.',
        counting: 'Jumping while counting: offer a seated way too.',
      },
      why: guidance,
    },
    'caution-hot': {
      when: 'Something hot, lit or plugged in on the table.',
      what: 'Nothing hot, lit or plugged in belongs on the table you film or count at.',
      why: guidance,
    },
    'caution-flash': {
      when: 'Flashing pictures.',
      what: 'Flashing pictures can do harm: keep them out of the film.',
      why: guidance,
    },
    expires: {
      when: 'A word that is wrong when the film is watched later.',
      what: '“{word}” will be wrong when this is watched later.',
      why: 'Say it so that it holds on any day.',
    },
    identifies: {
      when: 'Words that tell where a person can be found.',
      what: '“{word}” tells where a child or a grown-up can be found.',
      why: 'Names of classes, streets and people stay out of films that are sent on.',
    },
  },
  take: {
    'count-skip': {
      when: 'A number of a count was left out.',
      what: {
        out: '{skipped} {count, plural, one {is} other {are}} left out of the count.',
        unheard:
          '{skipped} {count, plural, one {is} other {are}} not heard, though there was time for {count, plural, one {it} other {them}}.',
      },
    },
    'count-repeat': {
      when: 'A number of a count was said twice.',
      what: {
        sure: '{said} is said twice.',
        perhaps: '{said} may have been said twice.',
        instead: '“{said}” is said where {planned} belongs.',
      },
    },
    'count-order': {
      when: 'A number of a count was said where another belongs.',
      what: {
        instead: '“{said}” is said where {planned} belongs.',
        swapped: '{said} is said out of its order.',
        between: '“{said}” does not belong between {low} and {high}.',
        stray: '“{said}” does not belong in this count.',
      },
    },
    'count-end': {
      when: 'A count stopped early or went on.',
      what: {
        stops: 'The count stops at {said}; {planned} was planned.',
        'goes-on': 'The count goes on to {said}; {planned} was planned.',
      },
    },
    'total-mismatch': {
      when: 'The total said is not what was counted.',
      what: {
        line: '{counted} were counted; “{said}” is said.',
        free: 'The count ends at {counted}, then {said} is said.',
      },
    },
    'false-sentence': {
      when: 'A number sentence that was said is not true.',
      what: '{sentence} was said, and it is not true.',
    },
    'number-changed': {
      when: 'A number of the script came out as another.',
      what: '“{planned}” came out as “{said}”.',
    },
    'line-skipped': {
      when: 'A line of the script was not heard.',
      what: {
        silent: '“{line}” was not heard.',
        something: '“{line}” was not heard, though something was said here.',
      },
    },
    'false-start': {
      when: 'A line or count was begun, then begun again.',
      what: {
        line: 'Started “{words}”, then again.',
        count: 'Counted {words}, then went back to {again}.',
        free: 'Somebody starts again here: “{words}”.',
      },
    },
    filler: {
      when: 'Something that is not in the script was said in between.',
      what: {
        known: '“{word}” was heard.',
        unknown: 'Something short was said that is not in the script; it sounded like “{word}”.',
      },
    },
    'dead-air': {
      when: 'Silence longer than is written.',
      what: {
        long: 'Silence of {silent} s; {written} s is written here.',
        whole: 'Nothing was heard in this take.',
      },
    },
    'wait-short': {
      when: 'A written wait was cut short.',
      what: 'A wait of {written} s is written; {left} s was left.',
    },
    'answer-early': {
      when: 'A question was answered before children could.',
      what: 'A wait of {written} s is written; {left} s was left.',
    },
    'clap-mismatch': {
      when: 'Other claps were heard than are written.',
      what: '{heard, plural, one {# clap was} other {# claps were}} heard; {written, plural, one {# is} other {# are}} written.',
    },
    pace: {
      when: 'Spoken very fast or very slowly.',
      what: 'Spoken at {pace} words a minute.',
    },
    'pause-cue': {
      when: 'Viewers are told to stop the film.',
      what: 'Viewers are told to stop the film here.',
    },
    wait: {
      when: 'Time to think was left.',
      what: '{left} s {left, plural, one {is} other {are}} left to think.',
    },
    recount: {
      when: 'The same count was said once more, as a check.',
      what: { line: 'Counted again.', free: 'Counted again from {from}.' },
    },
  },
  cut: {
    expires: {
      when: 'A word that is wrong when the film is watched later.',
      what: '“{word}” will be wrong when this is watched later.',
    },
    identifies: {
      when: 'Words that tell where a person can be found.',
      what: '“{word}” tells where a child or a grown-up can be found: cut it out.',
    },
    'caption-number': {
      when: 'A caption says a number that is not heard there.',
      what: 'The caption says “{number}”, which is not heard there: “{caption}”.',
    },
    'caption-quick': {
      when: 'A caption is gone before it can be read.',
      what: 'Too quick to read ({letters} letters a second): “{caption}”.',
    },
    'caption-missing': {
      when: 'Several words are said with no caption.',
      what: 'Said, but not captioned: “{words}”.',
    },
    'caption-guess': {
      when: 'A caption is the script’s, where what was said was not understood.',
      what: 'The caption “{caption}” is as the script has it; what was said there was not understood. Listen, and write what you hear, or keep it.',
    },
    'caption-covers': {
      when: 'A caption covers what is written on the table.',
      what: 'The caption “{caption}” covers what is written on the table. Make it shorter, or write higher up.',
    },
    'overlay-counted': {
      when: 'An overlay covers things that are counted.',
      what: 'The {overlay} covers things that are being counted: move it, or make it smaller.',
    },
    'overlay-edge': {
      when: 'An overlay comes too near to the edge.',
      what: 'The {overlay} comes too near to the edge: some screens cut it off.',
    },
    'overlay-captions': {
      when: 'An overlay stands where captions come.',
      what: 'The {overlay} stands where captions come.',
    },
    'overlay-small': {
      when: 'An overlay is too small for a phone.',
      what: {
        read: 'The {overlay} is too small to be read on a phone.',
        seen: 'The {overlay} is too small to be seen on a phone.',
      },
    },
    'card-small': {
      when: 'A card says so much that it is too small for a phone.',
      what: 'The {card} card says so much that it is too small for a phone: shorten it, or make two of it.',
    },
    'card-cut-off': {
      when: 'A card says more than it can hold.',
      what: 'The {card} card says more than it can hold, and is cut off: shorten it, or make two of it.',
    },
    'person-seen': {
      when: 'A face or name may be seen, and nobody has decided about it.',
      what: 'Perhaps {hidden} can be seen: cover it, or say that it may be seen.',
    },
    'film-long': {
      when: 'The film is longer than children of its age watch.',
      what: {
        film: '{filmSeconds} is longer than the {limitSeconds} children of this age watch. Shorten it, or send it in two parts.',
        planned:
          'With {plannedSeconds} still to film it comes to {filmSeconds}, longer than the {limitSeconds} children of this age watch. Shorten it, or send it in two parts.',
        cards:
          '{filmSeconds} is longer than the {limitSeconds} children of this age watch; {cardSeconds} of it are cards. Shorten it, or send it in two parts.',
      },
    },
    'segment-long': {
      when: 'A segment is over its limit.',
      what: '“{title}” lasts {filmSeconds}, over the {limitSeconds} of a segment.',
    },
    'sound-clipped': {
      when: 'Sound was too loud to be recorded.',
      what: 'The sound is cut off at its loudest here: it crackles. Another take, or the line said again, sounds better.',
    },
  },
  film: {
    flash: {
      when: 'More than three flashes in a second.',
      what: {
        light:
          'Flashes from {fromSeconds} to {toSeconds}, {perSecond} in a second: more than three can harm. Cut them out, or hold the picture still there.',
        red: 'Flashes of red from {fromSeconds} to {toSeconds}, {perSecond} in a second: more than three can harm. Cut them out, or hold the picture still there.',
      },
    },
    black: { when: 'The picture is black.', what: 'The picture is black from {fromSeconds} to {toSeconds}.' },
    frozen: {
      when: 'Nothing moves, and nothing holds the picture.',
      what: 'Nothing moves from {fromSeconds} to {toSeconds}: is that meant?',
    },
    loud: {
      when: 'The sound is too loud for small loudspeakers.',
      what: 'The sound reaches {peak} dB: it may crackle on small loudspeakers.',
    },
    sync: {
      when: 'Picture and sound do not end together.',
      what: 'Picture and sound are not of one length ({picture} s and {sound} s): lips and hands may be off.',
    },
    size: {
      when: 'The small version is larger than is set for its length.',
      what: 'The small version has {megabytes} MB, more than the {allowed} MB set for its length.',
    },
  },
  names: {
    mat: {
      table: 'open table',
      row: 'row',
      frame: 'ten frame',
      parts: 'part-whole',
      bar: 'bar',
      shelves: 'shelves',
      plates: 'plates',
      jar: 'jar',
      line: 'number line',
      square: 'hundred square',
      dots: 'dot card',
      pairs: 'pair plate',
      rail: 'rail of pegs',
      cards: 'cards',
      hands: 'hands',
      tower: 'tower',
      coins: 'coins',
      skittles: 'skittles',
      scene: 'picture',
      sound: 'sound',
      dice: 'dice',
      spinner: 'spinner',
      bowl: 'bowl',
    },
    overlay: {
      sentence: 'number sentence',
      table: 'table drawing',
      hops: 'hops',
      ring: 'ring',
      arrow: 'arrow',
      magnify: 'magnifier',
    },
    card: {
      aim: 'Aim',
      things: 'Things',
      stop: 'Stop',
      sentence: 'Number sentence',
      guard: 'Answers come',
      thanks: 'Thank-you',
    },
    hidden: {
      face: 'a face',
      name: 'a name',
      number: 'a number or address',
      other: 'something else',
    },
    wish: {
      'crosses ten': 'crosses ten',
      double: 'is a double',
      zero: 'has a zero',
      leftover: 'leaves something over',
      'turn-round': 'is a turn-round of another',
    },
    operation: { adding: 'adding', 'taking away': 'taking away', result: 'the result' },
  },
} as const satisfies Language
