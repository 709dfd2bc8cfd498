/** The cells of a terminal: what is on its screens, and what has left them for the scrollback. */
package zander.core.term.screen;
