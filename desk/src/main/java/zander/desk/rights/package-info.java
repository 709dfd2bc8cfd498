/** The rights of what is selected, and what the panel tells about it. */
package zander.desk.rights;
