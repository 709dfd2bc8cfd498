/** Bytes of a program become text, controls and sequences: the parser of the terminal. */
package zander.core.term.parse;
