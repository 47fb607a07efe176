/** What a card’s words are drawn from: 256 short words that a child can read and nobody minds. Five make a code: 40 bits. */
const WORDS = `
acorn amber anchor ant apple apron arrow ash aspen atlas autumn badge bagel baker bamboo banjo barley barn basil basket bay beam bean bear
beaver bee beet bell bench berry birch bird bison blanket bloom blue boat book boot bottle bowl box branch brass bread breeze brick bridge
broom brown brush bucket bud bunny bus butter button cabin cactus camel canoe canyon carrot castle cat cedar chalk cherry chess circle clay
cliff clock cloud clover coat cocoa comet copper coral corn cotton cow crane crayon cricket cube cup curtain daisy deer denim desert dill
dock dog dolphin donkey door dove dragon drum duck eagle earth easel echo elbow elm ember fabric falcon fern ferry fiddle field fig finch
fir fish flag flute forest fork fox frog fruit garden ginger giraffe glass globe glove goat gold goose grape grass gravel green guitar hammer
harbor hat hawk hazel hedge heron hill hive honey hoop horse house iris island ivory ivy jacket jam jar jasmine jelly kayak kettle kite kiwi
ladder lake lamp lantern lark leaf lemon lilac lily lime linen lion lotus lunch lynx magnet mango maple marble market meadow melon mint mirror
mitten moon moose moss moth mountain mouse needle nest noodle nut oak oats ocean olive onion orange orchid otter owl paddle panda paper
parrot pasta patch peach pear pebble pencil penguin pepper piano pillow pine planet plum pocket pond pony poppy potato pumpkin puzzle quilt
rabbit raven ribbon rice river robin rocket rose saddle salad sand scarf seal shell silver snow spoon star sun swan`
  .trim()
  .split(/\s+/);

export const WORDS_IN_CODE = 5;

/**
 * The words of a card from random bytes, one for each.
 *
 * @param bytes  five, each 0 … 255
 * @example codeFrom([0, 1, 2, 3, 4]) // 'acorn amber anchor ant apple'
 */
export function codeFrom(bytes: ArrayLike<number>): string {
  return Array.from({ length: WORDS_IN_CODE }, (_, i) => WORDS[bytes[i] ?? 0]).join(' ');
}

/**
 * A code as it is typed, as it is kept: small letters, one space between words.
 *
 * @example typedCode(' Fern-Otter  lamp, Moon ') // 'fern otter lamp moon'
 */
export function typedCode(text: string): string {
  return text
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter(Boolean)
    .join(' ');
}
