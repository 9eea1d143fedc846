// A toy needs no more than its folder to be built.
import { attach } from '../../../../../assets/_parts/attach.js';

attach('#toy', (toy) => toy.classList.add('awake'));
