/**
 * First names that stand for each other, each line a group: short forms, and what they are short for. Our own list, from memory:
 * common practice in American schools, not complete.
 */
const groups = `
abigail abby gail
alexander alexandra alexis alex xander sasha lex sandy
alfred alfie fred freddie
amelia millie mia
andrew andy drew
anthony tony ant
arthur art artie
barbara barb babs
benjamin ben benny benji
bernard bernie
caroline carolyn carol carrie
catherine katherine kathryn cathy kathy kate katie kat kitty cate
charles charlie chuck chas
charlotte charlie lottie
christopher christina christine chris kit topher tina chrissy
daniel dan danny
daniela danielle dani
david dave davey
deborah debra deb debbie
dominic dom nick
donald don donnie
dorothy dot dottie
edward edmund edgar ed eddie ned ted teddy
eleanor elena ellen ellie nell nellie nora lena
elizabeth beth betsy betty eliza liz lizzie libby ella elsie lisa
emily emma em emmy
eugene gene
ezekiel zeke
frances francis francisco fran frank frankie paco
frederick fred freddie
gabriel gabriella gabrielle gabe gabby
george georgie
gerald jerry gerry
gregory greg
guadalupe lupe
harold harry hal
henry harry hank
ignacio nacho
isabel isabella isabelle izzy bella belle
jacob jake
jacqueline jackie
james jim jimmy jamie
janet jan
jeffrey geoffrey jeff geoff
jennifer jen jenny
jessica jess jessie
jesus chuy
john jonathan jon johnny jack
jose pepe
joseph josephine joe joey jo josie
joshua josh
judith judy
julia julian juliet jules
kenneth ken kenny
kimberly kim
lawrence laurence larry laurie
leonard leo len lenny
leonardo leo
lillian lily lil
louis louise luis lou louie
lucia lucille lucy lulu
margaret maggie meg megan peg peggy greta marge daisy rita
maria mary mia molly mimi
martin marty
matthew matt matty
maximilian maxwell maxine max
megan meg
melissa mel missy
michael michelle mike mikey mick shelly
mohammed muhammad mohamed mo
nancy nan
natalie natalia nat
nathan nathaniel nate nat
nicholas nicole nick nicky nico
oliver olivia ollie liv livvy
pamela pam
patrick patricia pat patty paddy trish tricia rick
penelope penny nell
peter pete
philip phillip phil
rachel rach
raymond ray
rebecca becca becky
richard rich rick ricky dick
robert roberta rob robbie bob bobby bert
ronald ron ronnie
rosemary rosalind rose rosie
samuel samantha sam sammy
santiago santi
sarah sara sadie sally
sebastian seb bastian
stephen steven stephanie steve stevie steph
susan susanna suzanne sue susie suzy
theodore theodora theo ted teddy thea dora
theresa teresa terry tess tessa
thomas tom tommy
timothy tim timmy
valerie val
veronica ronnie vera
victor victoria vic vicky tori
vincent vince vinny
walter walt wally
william wilhelmina will willie bill billy liam mina
zachary zack zach zak`;

const formsOf = new Map<string, Set<string>>();
for (const line of groups.trim().split('\n')) {
  const names = line.split(' ');
  for (const name of names) {
    const known = formsOf.get(name) ?? new Set();
    for (const other of names) if (other !== name) known.add(other);
    formsOf.set(name, known);
  }
}

const none: ReadonlySet<string> = new Set();

/**
 * The names that somebody with this first name may be called by, or that this one may be short for; in small letters.
 *
 * @example otherForms('rob').has('robert') // true
 */
export const otherForms = (name: string): ReadonlySet<string> => formsOf.get(name) ?? none;
