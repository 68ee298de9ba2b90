/**
 * Words teachers of young children say between the lines of any script: what is said but not written is then heard as
 * itself instead of being forced into the script's own words. Common English, chosen by hand; no names.
 */
export const talkWords: readonly string[] = `
a about after again all also altogether always am an and another any are around as ask at away
back be because before behind big bit both bottom bring but by
called came can careful carefully catch check children clap clever close come coming correct could cover
did different do does doing done don't down draw drop
each easy end every everybody everyone exactly eyes
fast fetch few fill find finger fingers finish finished first five fold for found from full fun
game get getting give go goes going gone good got great grown guess
had half hand hands happened has have having he hear hello help her here hidden hide high him his hold hop how
i idea if i'm in inside instead into is it it's
jump just
keep kind know
lady last later learn leave left let let's letters lid lift like line listen little look looking lots loud
made make makes making many maybe me mind mine more most move moved much my
name need new next nice no not now number numbers
of off oh okay old on once only open or other our out outside over own
paper part parts pattern pause people pick picture piece place play please point pop press pretend problem pull push put
question quick quickly quiet quite
ready really remember right row
said same saw say saying see set share she should show side sides sit slowly small so some something sorry stand start started still stop story sure
take taken taking talk tell than thank that that's the their them then there there's these they thing things think this those thought through time tiny to today together told too top touch try trying turn
under until up us use using
very video
wait want was watch way we well went were we've what what's when where which while who whole why will with without wonder word words work would write wrong
yes yet you your you're yourself
`
  .trim()
  .split(/\s+/)
