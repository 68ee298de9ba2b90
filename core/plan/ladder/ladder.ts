import type { Idea } from '../../contracts/idea.ts'
import type { Structure } from '../../contracts/lesson.ts'

type Row = readonly [id: string, name: string, structure: Structure | null, least: number, upTo: number, from: number, to: number, after: string, evidence: string, misconceptions: string]

/**
 * The ladder every setting starts from and may change. Ages are the range in which most children meet an idea, for
 * orientation only. `after` and misconceptions are lists parted by a bar.
 */
const rows: readonly Row[] = [
  ['count-3', 'Count three things', null, 0, 3, 3, 4, '', 'Says one number for one thing and stops at the last.', 'one word for two things|counts on past the last thing'],
  ['count-5', 'Count five things', null, 0, 5, 3, 4, 'count-3', 'Counts five things in a row and says how many without counting again.', 'one word for two things|skips a thing'],
  ['see-3', 'See three at a glance', null, 0, 3, 3, 4, 'count-3', 'Says how many without counting, in any arrangement.', 'counts each time from one'],
  ['count-scattered', 'Count things that lie anyhow', null, 0, 8, 3, 5, 'count-5', 'Moves or marks things so that none is counted twice.', 'counts a thing twice|leaves one out'],
  ['count-10', 'Count to ten things', null, 0, 10, 3, 5, 'count-5', 'Counts ten things once each and says ten.', 'one word for two things|skips a number'],
  ['zero', 'Nothing is zero', null, 0, 5, 3, 5, 'count-3', 'Shows and says zero for an empty place, and says none of what.', 'zero as one|nothing left to say'],
  ['numerals-5', 'Numerals 0 to 5', null, 0, 5, 3, 5, 'count-5|zero', 'Matches a numeral to things both ways.', 'numerals mirrored'],
  ['numerals-10', 'Numerals 0 to 10', null, 0, 10, 4, 5, 'numerals-5|count-10', 'Matches numerals to ten to things both ways and writes most of them.', 'numerals mirrored|digits turned'],
  ['same-number', 'One number, many looks', null, 0, 10, 3, 5, 'count-5', 'Says the number is the same when things are moved.', 'longer row means more'],
  ['give-n', 'Give me a number of things', null, 0, 10, 3, 5, 'count-5', 'Takes the number asked for and stops.', 'takes a handful|counts on past the number'],
  ['see-groups', 'See how a number is grouped', null, 0, 10, 4, 5, 'see-3|same-number', 'Says the groups seen: five and two.', 'counts each time from one'],
  ['sounds', 'Count sounds', null, 0, 10, 3, 5, 'count-5', 'Counts claps heard and not seen.', 'off by one'],
  ['words-10', 'Number words and names', null, 0, 10, 4, 6, 'numerals-10', 'Matches word, numeral and things to ten.', 'sound-alike words'],
  ['order-10', 'Put numbers to ten in order', null, 0, 10, 4, 5, 'numerals-10', 'Places cards 0 to 10 in order from any start.', 'starts again from one'],
  ['next-before', 'One more, one fewer', 'add', 0, 10, 4, 5, 'order-10', 'Says the next and the one before without counting from one.', 'counts from one|fewer and more turned'],
  ['more-fewer', 'More and fewer', 'compare', 0, 10, 3, 5, 'count-10', 'Matches one to one and says which has more and which has fewer.', 'longer row means more|fewer and more turned'],
  ['how-many-more', 'How many more', 'compare', 0, 10, 4, 6, 'more-fewer|next-before', 'Gives the difference, not the larger set.', 'gives the larger number|fewer and more turned'],
  ['join', 'Put together and count all', 'add', 0, 6, 3, 5, 'count-5', 'Joins two groups and counts all of them.', 'counts one group only'],
  ['take-apart', 'Take some away and count what is left', 'take-away', 0, 6, 3, 5, 'count-5', 'Takes the number asked and counts what is left.', 'adds for take away|counts what was taken'],
  ['parts-5', 'Parts of 5', 'parts', 0, 5, 3, 5, 'join', 'Finds all ways and says the whole stays the same.', 'result written beside the parts|thinks a turn-round is new'],
  ['parts-6', 'Parts of 6', 'parts', 0, 6, 4, 5, 'parts-5', 'Finds all ways and knows there are no more.', 'works in no order'],
  ['parts-7', 'Parts of 7', 'parts', 0, 7, 4, 6, 'parts-6', 'Finds all ways in order.', 'works in no order|leaves out zero'],
  ['parts-8', 'Parts of 8', 'parts', 0, 8, 4, 6, 'parts-7', 'Finds all ways in order.', 'works in no order'],
  ['parts-9', 'Parts of 9', 'parts', 0, 9, 4, 6, 'parts-8', 'Finds all ways in order.', 'works in no order'],
  ['parts-10', 'Parts of 10', 'parts', 0, 10, 4, 6, 'parts-9', 'Names the partner of any number to ten.', 'works in no order|off by one'],
  ['pairs-recall', 'Pairs of ten by heart', 'parts', 0, 10, 5, 7, 'parts-10', 'Says the partner in about three seconds.', 'counts each time from one'],
  ['missing-6', 'Missing part of a small whole', 'missing', 0, 6, 4, 6, 'parts-6', 'Gives the hidden part, not the whole.', 'missing part given as the total|gives the known part'],
  ['missing-10', 'Missing part within 10', 'missing', 0, 10, 5, 6, 'missing-6|parts-10', 'Gives the part that is missing wherever it stands.', 'missing part given as the sum|equals means the answer comes next'],
  ['add-5', 'Add within 5', 'add', 0, 5, 3, 5, 'join', 'Adds with things and says the sentence in words.', 'counts one group only'],
  ['add-10', 'Add within 10', 'add', 0, 10, 4, 6, 'add-5|parts-5', 'Finds totals to ten by any way and says how.', 'result written beside the parts|off by one'],
  ['turn-rounds', 'Turned round, the same total', 'add', 0, 10, 4, 6, 'add-10', 'Uses the turn-round without working it out again.', 'thinks a turn-round is new'],
  ['draw-to-add', 'Draw to add', 'add', 0, 10, 4, 6, 'add-10|numerals-10', 'Draws both parts, crosses off while counting, rings the total.', 'numerals mirrored|draws the total too'],
  ['count-on', 'Counting on', 'count-on', 0, 10, 4, 6, 'add-10|next-before', 'Holds the first number and counts only the rest.', 'counts the starting number'],
  ['count-on-20', 'Counting on to 20', 'count-on', 5, 20, 5, 7, 'count-on|teens', 'Counts on from the larger number.', 'counts the starting number'],
  ['doubles-10', 'Doubles to five and five', 'doubles', 1, 10, 4, 6, 'add-10', 'Says the double of 1 to 5.', 'double as one more|double as the digit twice'],
  ['doubles-20', 'Doubles to ten and ten', 'doubles', 1, 20, 5, 7, 'doubles-10|teens', 'Says the double of 6 to 10.', 'double as one more'],
  ['near-doubles', 'Double and one', 'add', 0, 20, 5, 7, 'doubles-20', 'Uses a double to find its neighbour.', 'double and one the wrong way'],
  ['halves-10', 'Halves to 10', 'halves', 2, 10, 4, 6, 'doubles-10', 'Finds half and knows which numbers will not halve.', 'half as one less|unequal shares accepted'],
  ['halves-20', 'Halves to 20', 'halves', 2, 20, 5, 7, 'halves-10|doubles-20', 'Finds half to twenty.', 'half as one less'],
  ['odd-even', 'Odd and even', 'halves', 2, 20, 5, 7, 'halves-10', 'Says odd or even by the one left alone.', 'decides by the first digit'],
  ['share-2', 'Share between two', 'share', 2, 10, 4, 6, 'count-10', 'Shares one at a time and says whether it is fair.', 'unequal shares accepted|leftover ignored'],
  ['share-k', 'Share among three, four, five', 'share', 3, 20, 5, 7, 'share-2', 'Shares and says what is left over.', 'leftover ignored|unequal shares accepted'],
  ['groups', 'How many groups', 'share', 2, 20, 5, 7, 'share-k', 'Makes groups of a size and counts the groups.', 'counts things for groups'],
  ['take-5', 'Take away within 5', 'take-away', 0, 5, 3, 5, 'take-apart', 'Takes away with things and says what is left.', 'adds for take away'],
  ['take-10', 'Take away within 10', 'take-away', 0, 10, 4, 6, 'take-5|parts-5', 'Finds what is left by any way and says how.', 'adds for take away|off by one'],
  ['take-zero', 'Taking nothing, taking all', 'take-away', 0, 10, 4, 6, 'take-10|zero', 'Says what is left when none or all are taken.', 'n take away nothing is nothing'],
  ['count-back', 'Counting back', 'take-away', 2, 10, 5, 6, 'take-10|order-10', 'Counts only the jumps.', 'counts the standing number'],
  ['difference', 'Count up to find the difference', 'compare', 0, 20, 5, 7, 'how-many-more|count-on', 'Counts up from the smaller to the larger.', 'gives the larger number'],
  ['fact-family', 'Adding and taking away belong together', 'missing', 0, 10, 5, 7, 'add-10|take-10|missing-10', 'Gives the four sentences of one whole.', 'takes the whole from the part'],
  ['equals', 'Equals means the same as', 'missing', 0, 10, 5, 7, 'missing-10', 'Accepts and makes 6 = 4 + 2.', 'equals means the answer comes next'],
  ['teens', 'Ten and some ones', 'teens', 11, 19, 4, 6, 'count-10|parts-10', 'Sees the full frame as ten and reads the rest.', 'ten and ones side by side|teen for ty'],
  ['numerals-20', 'Numerals 11 to 20', 'teens', 11, 20, 5, 6, 'teens', 'Reads and writes 11 to 20.', 'digits turned|ten and ones side by side'],
  ['count-20', 'Count to twenty and back', null, 0, 20, 4, 6, 'count-10', 'Says the run both ways from any number.', 'skips thirteen|skips fifteen'],
  ['add-20', 'Add within 20', 'add', 0, 20, 5, 7, 'add-10|teens', 'Finds totals to twenty without counting all.', 'counts the starting number|off by one'],
  ['make-ten', 'Make ten to add', 'add', 2, 20, 5, 7, 'add-20|pairs-recall', 'Splits the second number to fill the ten.', 'forgets the rest'],
  ['take-20', 'Take away within 20', 'take-away', 0, 20, 5, 7, 'take-10|teens', 'Finds what is left to twenty.', 'counts the standing number|smaller digit from larger'],
  ['through-ten', 'Make ten to take away', 'take-away', 11, 20, 5, 7, 'take-20|pairs-recall', 'Goes back to ten, then the rest.', 'from ten instead of from the part'],
  ['tens', 'Count in tens', null, 0, 100, 5, 6, 'count-20', 'Says and touches the tens to a hundred.', 'stuck at a decade'],
  ['two-digits', 'Tens and ones', null, 10, 99, 5, 7, 'teens|tens', 'Builds and reads a two-digit number.', 'digits turned|ten and ones side by side'],
  ['line-100', 'Place numbers on a line to 100', 'order', 0, 100, 5, 7, 'two-digits', 'Places by half and tens, in order.', 'bunched at the top|07 for 70'],
  ['tens-on', 'Ten more, ten fewer', 'tens', 0, 100, 5, 7, 'two-digits', 'Changes the tens and leaves the ones.', 'changes ones|drops a ten'],
  ['take-tens', 'Take away tens and ones', 'take-away', 20, 99, 6, 7, 'tens-on|take-20', 'Takes tens off, then ones.', 'smaller digit from larger'],
  ['take-19', 'Take away 19 from a two-digit number', 'round-back', 20, 99, 6, 7, 'take-tens', 'Takes twenty and puts one back.', 'forgets to put back|puts back the wrong way|puts back ten'],
]
const list = (text: string): string[] => text.split('|').filter(Boolean)
export const ladder: readonly Idea[] = rows.map(([id, name, structure, least, upTo, from, to, after, evidence, misconceptions]) => ({
  id, name, structure, least, upTo, ages: [from, to], after: list(after), evidence, misconceptions: list(misconceptions), codes: [],
}))
export const ideaById = (id: string, on: readonly Idea[] = ladder): Idea | undefined => on.find((i) => i.id === id)
