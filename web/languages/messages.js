import { parseExpression } from '@babel/parser';
import { transformAsync } from '@babel/core';
import macro from '@lingui/babel-plugin-lingui-macro';
import { compileMessage } from '@lingui/message-utils/compileMessage';

/** Turns t`…`, plural() and <Trans> into calls; English stays in the code, read into its parts already. */
export function messages() {
  return {
    name: 'messages',
    enforce: 'pre',
    async transform(code, id) {
      const [file] = id.split('?');
      if (!/\.tsx?$/.test(file) || !code.includes('@lingui/')) return null;
      const done = await transformAsync(code, {
        filename: file,
        babelrc: false,
        configFile: false,
        sourceMaps: true,
        parserOpts: { plugins: file.endsWith('x') ? ['typescript', 'jsx'] : ['typescript'] },
        plugins: [[macro, { stripMessageField: false }], compiled],
      });
      return { code: done.code, map: done.map };
    },
  };
}

/** Compiles the English of each message, so that the browser needs no reader of message formats. */
const compiled = () => ({
  visitor: {
    Program: {
      exit: (program) =>
        program.traverse({
          ObjectExpression({ node }) {
            if (!node.leadingComments?.some((comment) => comment.value === 'i18n')) return;
            const message = node.properties.find((property) => property.key?.name === 'message');
            if (message) message.value = parseExpression(JSON.stringify(compileMessage(message.value.value)));
          },
        }),
    },
  },
});
