/** The record of every change made on a server, with what was there before. */
package zander.core.journal;
