/** Commands, scripts, pipes and shells over a connection. */
package zander.core.connect.command;
