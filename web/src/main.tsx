import 'reflect-metadata';
import './ui/tokens.css';

// What decorators need is there before any script with a class that has some, in whatever order scripts are split and loaded.
void import('./start');
