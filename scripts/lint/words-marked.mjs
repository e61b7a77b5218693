/** Reads as words for the pianist: a capital and a word after it, or several words in a row. */
const WORDS = /^[^A-Za-z]*[A-Z][a-z]+[ ,:.…]|[a-z]{2,},? [a-z]+ [a-z]/;
/** What looks like words but is read by the machine: selectors, indexes of the database, media queries, fonts. */
const CODE = /[[\]{}<>=]|^[a-z]+, [a-z]+(, [a-z]+)?$|sans-serif|^jh-|\n/;

const said = (text) => WORDS.test(text) && !CODE.test(text);

/** Where a string itself is never shown: what is imported from, types, cases, comparisons, templates that are tagged. */
const UNSEEN = /^(Import|Export|TSLiteralType|SwitchCase|TaggedTemplate|BinaryExpression$)/;

/** Inside of which nothing is shown: what is told to the compiler, or thrown for the developer. */
const isInside = (at) => at.type === 'Decorator' || (at.type === 'NewExpression' && at.callee.name === 'Error');

/** What a screen says is marked with $localize, so that the catalogue for other languages holds it. */
export default {
  rules: {
    'words-marked': {
      meta: { type: 'problem', schema: [] },
      create(context) {
        const check = (node, text) => {
          if (!said(text)) return;
          if (UNSEEN.test(node.parent.type)) return;
          for (let at = node.parent; at; at = at.parent) if (isInside(at)) return;
          context.report({ node, message: `“${text.slice(0, 40)}” is shown to pianists: mark it with $localize.` });
        };
        /** A colon right after a value begins the value's name there, and the message cannot be read when the page runs. */
        const checkColons = ({ quasi }) => {
          for (const q of quasi.quasis.slice(1))
            if (q.value.raw.startsWith(':')) context.report({ node: q, message: 'Write "\\:" for a colon right after a value.' });
        };
        return {
          'TaggedTemplateExpression[tag.name="$localize"]': checkColons,
          Literal: (node) => typeof node.value === 'string' && check(node, node.value),
          TemplateLiteral: (node) => check(node, node.quasis.map((q) => q.value.cooked).join('0')),
        };
      },
    },
  },
};
