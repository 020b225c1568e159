import '@/kit/tokens.css';
import '@/kit/base.css';
import '@/kit/sheet.css';
import { mount } from 'svelte';
import App from '@/app/App.svelte';

const target = document.getElementById('app');
if (!target) throw new Error('the page has no #app');
mount(App, { target });
