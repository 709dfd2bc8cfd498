/** The commands that a made-up server has. */
package zander.standin.shell.command;
