import './tokens.css';
import './base.css';
import { mount } from 'svelte';
import App from './App.svelte';

const target = document.getElementById('app');
if (!target) throw new Error('the page has no #app');
mount(App, { target });
