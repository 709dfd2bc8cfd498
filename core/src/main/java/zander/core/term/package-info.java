/** A terminal without a window: what a program writes goes in, what is on the screen comes out. */
package zander.core.term;
