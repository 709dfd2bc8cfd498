/** How many cells a character takes, and which characters share them. */
package zander.core.term.unicode;
