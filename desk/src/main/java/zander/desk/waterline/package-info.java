/** Transfers of one desk: what is sent where, by which rules, and what follows when it is over. */
package zander.desk.waterline;
