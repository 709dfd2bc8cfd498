/** The page of a site that a file makes: where it is seen, and how it is. No controls. */
@NullMarked
package zander.desk.page;

import org.jspecify.annotations.NullMarked;
