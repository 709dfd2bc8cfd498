/** Transfers of one desk: what is sent where, by which rules, and what follows when it is over. */
@NullMarked
package zander.desk.waterline;

import org.jspecify.annotations.NullMarked;
