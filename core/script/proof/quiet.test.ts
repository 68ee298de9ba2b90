import { describe, expect, test } from 'vitest'
import { HouseStyle } from '../../contracts/house-style.ts'
import { aimOf } from '../../plan/aim.ts'
import { fromMarkdown } from '../formats/markdown.ts'
import { proofread } from './proof.ts'

/** Ordinary things a teacher says, with number words, signs and near misses in them. None of them is a mistake. */
const said = `
One of you can come here.|We start at four o’clock.|First, sit down. Second, look.|Give me two minutes.|There are two of us here.|One moment.|For once, I am early.
Two heads are better than one.|Let us count one more time.|Bobbin is one busy postie.|I have one thing to tell you.|One by one they go in.|It takes two to carry this.|That was a close one.
Which one is next?|This one and that one.|Not that one, the other one.|No one is at home.|Everyone is ready.|Someone knocks twice.|Once upon a time there was a post office.
He lives at number nine.|The bus is number twelve.|Door seven is green.|We read two stories and three poems.|My cat has four legs and two ears.|A van has four wheels.|The clock says half past two.
I counted to ten in my head.|Count to three and breathe.|On three we start.|Take one step back.|Take two steps forward.|Give me five.|High five.|Ten out of ten for trying hard.|Nine times out of ten he is late.
Seven days make a week.|A dozen is twelve.|There are sixty minutes in an hour.|It is a two-sided counter.|This is a ten frame.|An egg box has ten places.|The second house is blue.|The third time is fun.
Add your name at the top.|Add a little water.|Put your hands together.|Take away the cloth.|Take it away.|Make a wish.|It makes a noise.|It makes me smile.|That makes sense.|This is the same as mine.
Everything is ready.|Is everything ready and is everybody here?|You and I are two.|Between you and me.|Less noise, please.|There is less water in this cup.|It costs less.|Less is sometimes enough.
One number is less than another.|Seven is less than nine.|Which is more, five or eight?|Is it more or fewer?|Look again.|Look at this one and this one.|Listen to the sound.|Shut your eyes.
I wonder how many are hidden.|I wonder what is under the cloth.|What could it be?|How did you see it?|How do you know?|Tell somebody near you.|Say it in a whisper.|Say it in a loud voice.
Put them in a line.|Stand in a line.|Draw a line on your paper.|Lie down on the floor.|Turn round and look.|Turn over the page.|Roll up your sleeves.|Cross your arms.|Hop on board.|Jump in the van.
The letters are sorted.|The parcels are heavy.|Parcels come in all sizes.|A parcel is on its way.|More parcels come every day.|Some parcels are missing.|All the parcels are here.|Half the street is asleep.
I will share a story.|Share your things.|Let us share.|Share with a friend.|That is fair.|Is it fair?|It is not fair yet.|A fair share is the same for all.|Eight shared between two is fair.
We can pair our socks.|Pair them up.|They are partners in a dance.|Find a partner.|A part of me wants to sleep.|This is my favourite part.|The whole street is awake.|The whole thing is silly.
Zero is a number too.|Nothing is in the box.|None of the parcels are here.|There is nothing left to say.|Turn left at the corner.|What is left on your plate?|He left early.|She left two minutes ago.
Right, let us begin.|That is right.|Hold my hand.|Hold on tight.|Hold the jar with both hands.|Keep it safe.|Remember the van.|Cover your eyes.|Hide under the table.|Uncover your ears.
Ready, steady, go.|Ready when you are.|Are you ready?|Shall we go on?|Can you see it?|How are you?|Are you all sitting well?|Okay, on we go.|Let me think.|Hmm, let me see.
Bobbin walks to the first house.|Bobbin walks past one house and another.|He has walked a hundred times.|A thousand thanks.|Hundreds of letters came.|Tens and ones live side by side.|Ten ones make a ten.|Ten ones make one ten.
I make a mistake sometimes.|Mistakes are welcome.|You can stop the film at any time.|Come back when you like.|Press play when you have it.|You counted with me.|You waited and thought.|Thank you for your letters.
Fingers are welcome.|Use your fingers.|Show me on your fingers.|Ask the grown-up with you.|The grown-up with you can help.|Let the child move the things.|Watch the table.|The table is clear.
Four add three equals seven.|Seven take away two equals five.|Three add four equals seven is a true sentence.|Double four equals eight.|Half of eight is four.|Ten take away ten equals zero.|Six equals four add two.|Five add zero equals five.
Seven equals seven.|One more than six is seven.|One fewer than six is five.|Two more than eight is ten.|Ten is five and five.|Nine is one less than ten.|Twenty-one is two tens and one.|Sixteen is ten and six.
He comes at quarter to three.|It is three past ten.|I am five feet tall.|Two thirds of the way.|A one-way street.|The twenty-first door.|Number one is mine.|One, two, buckle your shoe.
The numbers stand in order.|Numbers go on and on.|Even numbers pair up.|Odd numbers leave one over.|Adding two made it larger.|Taking three away left fewer.|This number can be halved.|Some numbers can be halved.
Double three equals six and double four equals eight.|Is 4 + 3 = 8?|Is 4 + 3 = 8 true or false?|Some people think 4 + 3 = 8, but it is not.|Six take away two equals four, and four take away two equals two.|Three of the four birds flew away.|The answer is not eight.|Take one from ten and you have nine.|Ten is made of six and four.
A book without a cover.|Read the first page.|It rained in the story.|The sun shines in the picture.|In the morning he starts early.|At night the post office sleeps.|Some day you will know.|Every Friday-coloured van is blue.
Strings of letters.|Nuts is a silly name.|Glasses help me see.|He pinned up a note.|The ball is round.|Run your finger along the line.|Skip the hard one and come back.|Stand up tall.
`
  .trim()
  .split(/\n|\|/)
  .map((s) => s.trim())
  .filter(Boolean)

const style = HouseStyle.parse({})
// A story that knows its words: only what a sentence itself does wrong can fire.
const findingsOf = (line: string) => {
  let n = 0
  const lesson = fromMarkdown(
    `# Post\nAge: 4\nNeeds: 10 two-faced counters, 1 ten frame\n\n## Together {together}\nDo: Put 7 on the frame\n${line}`,
    () => `s${(n += 1)}`,
  ).lesson
  return proofread({ ...lesson, aim: aimOf({ structure: 'add', upTo: 10 }) }, style).findings.filter(
    (f) => f.code !== 'too-few-listed',
  )
}
const allowed: Record<string, string> = {
  // Cautions are meant to fire on these words whatever the sentence; they are listed so that a change is seen.
  'Nuts is a silly name.': 'caution-food',
  'Strings of letters.': '',
  'Every Friday-coloured van is blue.': '',
  'Stand up tall.': '',
}

test('there are more than two hundred of them', () => expect(new Set(said).size).toBeGreaterThan(200))
describe('ordinary sentences do not fire', () => {
  test.each(said)('%s', (sentence) => {
    const verb = sentence.endsWith('?') ? 'Ask' : 'Say'
    const found = findingsOf(`${verb}: ${sentence}${verb === 'Ask' ? '\nWait: 5 s' : ''}`).map((f) => f.code)
    expect(found).toEqual(allowed[sentence] ? [allowed[sentence]] : [])
  })
})
