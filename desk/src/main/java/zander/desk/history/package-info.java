/**
 * The journal as a person reads it, putting back, and what was under way when the program ended.
 */
package zander.desk.history;
