import type { Plugin } from 'vite';

export function messages(): Plugin;
