/** The application and its desks, put together from the rooms beside this one. */
@NullMarked
package zander.desk.model;

import org.jspecify.annotations.NullMarked;
