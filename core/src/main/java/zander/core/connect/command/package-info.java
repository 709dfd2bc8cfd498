/** Commands, scripts, pipes and shells over a connection. */
@NullMarked
package zander.core.connect.command;

import org.jspecify.annotations.NullMarked;
