/** The cells of a terminal: what is on its screens, and what has left them for the scrollback. */
@NullMarked
package zander.core.term.screen;

import org.jspecify.annotations.NullMarked;
