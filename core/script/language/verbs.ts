/** Verbs by what hands do. A verb may stand in several: the rest of the line and the table decide. */
const verbClasses = {
  put: 'put pop place lay set drop scatter add post pour stand hang peg clip stick arrange spread pile stack build make sit slip paint draw dot give feed bring fetch get plant load pack sprinkle tip let show hold count deal plonk rest thread string plop tuck press stir scoop serve bake find slot balance poke plug deliver park sow line',
  take: 'take give pass remove eat pocket sweep pick lift pull unpeg unclip fold tuck shut close bend wipe rub munch nibble gobble pinch steal swallow pay spend drink throw lose roll blow fly go fall hop swim run leave jump float bounce drift sail walk crawl vanish disappear whisk snatch borrow pluck peel knock break snap post give put erase cross bite chew use send hide brush scoop fish dig crumble carry crash slide hand wash tip flit slip drive cycle melt burst pop',
  move: 'move shift shove slide push carry bring lift tip pass hop drop put take sweep transfer swap drag walk send lead roll place pop lay pour post pull slip lower raise go give return turn empty hand tidy gather collect pack count',
  cross: 'cross strike score put draw mark',
  turn: 'turn flip',
  cover: 'cover hide tuck wrap screw put lay pull close shut pop drop slip push place set',
  uncover: 'uncover unveil lift peel take open reveal pull whisk remove show unwrap unscrew raise',
  ring: 'ring circle loop draw put lay tie wind wrap lasso',
  divide: 'slide push shift move put place open make leave set shove',
  split:
    'split part separate break share sort divide cut snap pull partition move put make arrange group ring set lay',
  join: 'push bring put join slide stick move pull gather sweep gather click snap shove collect tip',
  share: 'share deal give pass',
  pair: 'pair put set arrange line lay match find sort',
  exchange: 'swap trade exchange change untie bundle unbundle tie undo break make group give split',
  swap: 'swap let turn flip spin change switch rotate trade exchange',
  double: 'double',
  match: 'make match copy',
  hop: 'hop jump leap spring step skip go climb walk move count bounce bound fly slide',
  start: 'begin start stand',
  mark: 'mark clip circle shade colour pop put lay point stand ring place peg hang draw show set tick make tap find drop stick write add sit colour paint touch land park',
  unmark: 'rub wipe erase remove take clear clean unshade unmark uncross pull',
  hold: 'hold keep remember tuck store put pop save pocket lock',
  label: 'write print label chalk note',
  lay: 'lay set get bring draw fetch put make place open show fold paint sketch hang roll unroll spread pop find stretch take',
  away: 'put take pack clear tidy remove fold move push',
  roll: 'roll throw toss tip cast shake drop fall land come show get',
  spin: 'spin flick twirl whirl turn land stop point',
  fish: 'draw pull take pick fish dip lift get grab choose reach',
  cards: 'show place lay put deal hold set turn flip hide draw pick add line open spread pop slide slot fan',
  order: 'put set sort arrange order change swap shuffle lay line move place',
  give_back: 'put pop drop return give slip post slide throw',
  clear:
    'clear wipe empty tidy rub sweep wash clean brush hide put fold close turn drop take shake tip lower rest',
  stand: 'put set stand pick lift prop raise get right',
  fall: 'knock topple fall tumble roll bowl skittle drop crash tip go push hit bring flatten send',
  shake: 'shake rattle shuffle rearrange stir mix jiggle jumble muddle swirl toss',
  clap: 'clap tap knock drum beat stamp ring give make play hit strum bang click snap pat stomp',
  say: 'say read tell look see watch listen ask call whisper sing count think smile wave nod point name talk wait remember check notice explain hear admire compare touch trace',
  leave: 'leave keep',
  fill: 'fill refill',
  name: 'name call',
  halve: 'halve slice tear cut break snap split',
  arrive: 'come arrive join appear land',
} as const

export type VerbClass = keyof typeof verbClasses

const classesOf = new Map<string, Set<VerbClass>>()
for (const [name, list] of Object.entries(verbClasses) as [VerbClass, string][])
  for (const verb of list.split(' ')) {
    const known = classesOf.get(verb) ?? new Set<VerbClass>()
    known.add(name)
    classesOf.set(verb, known)
  }
const irregular: Readonly<Record<string, string>> = {
  goes: 'go',
  gone: 'go',
  went: 'go',
  falls: 'fall',
  fell: 'fall',
  flew: 'fly',
  flies: 'fly',
  took: 'take',
  taken: 'take',
  ate: 'eat',
  laid: 'lay',
  gave: 'give',
  has: 'have',
  does: 'do',
  hid: 'hide',
  shuts: 'shut',
  drew: 'draw',
  pinched: 'pinch',
  threw: 'throw',
  hung: 'hang',
  blew: 'blow',
  swam: 'swim',
  ran: 'run',
}
/** The plain form of a verb the table knows, or null: "knocks" → "knock", "rolled" → "roll". */
export function verbOf(word: string): string | null {
  for (const form of formsOf(word)) if (classesOf.has(form)) return form
  return null
}
function formsOf(word: string): string[] {
  const known = irregular[word]
  if (known) return [known]
  const out = [word]
  if (/ies$/.test(word)) out.push(`${word.slice(0, -3)}y`)
  if (/es$/.test(word)) out.push(word.slice(0, -2))
  if (/s$/.test(word)) out.push(word.slice(0, -1))
  for (const end of ['ed', 'ing'])
    if (word.endsWith(end) && word.length > end.length + 2) {
      const base = word.slice(0, -end.length)
      out.push(base, `${base}e`)
      if (/(.)\1$/.test(base)) out.push(base.slice(0, -1))
    }
  return out
}
export const isVerbOf = (verb: string | null, kind: VerbClass): boolean =>
  verb !== null && (classesOf.get(verb)?.has(kind) ?? false)
