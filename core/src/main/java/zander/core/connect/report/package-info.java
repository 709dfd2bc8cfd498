/** What is told of a sign-in: its steps, what was noted at each, and why it failed. */
@NullMarked
package zander.core.connect.report;

import org.jspecify.annotations.NullMarked;
