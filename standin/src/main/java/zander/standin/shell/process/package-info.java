/** A command as it runs: its arguments, streams, words and terminal. */
package zander.standin.shell.process;
