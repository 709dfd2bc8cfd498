/** What is told of a sign-in: its steps, what was noted at each, and why it failed. */
package zander.core.connect.report;
