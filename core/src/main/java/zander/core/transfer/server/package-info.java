/** What all that works on one server for one transfer shares, and the choice how files go. */
package zander.core.transfer.server;
