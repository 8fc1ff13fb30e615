-- IEEE 1076 clause 16.4: text in and out.
package textio is
  type line is access string;
  type text is file of string;
  type side is (right, left);
  subtype width is natural;
  file input : text open read_mode is "STD_INPUT";
  file output : text open write_mode is "STD_OUTPUT";
  function justify (value : string; justified : side := right; field : width := 0) return string;
  procedure readline (file f : text; l : inout line);
  procedure writeline (file f : text; l : inout line);
  procedure tee (file f : text; l : inout line);
  procedure sread (l : inout line; value : out string; strlen : out natural);
  procedure string_read (l : inout line; value : out string; strlen : out natural);
@V bit bit_vector boolean character integer real string time
  procedure read (l : inout line; value : out @; good : out boolean);
  procedure read (l : inout line; value : out @);
@E
@V bit bit_vector boolean character integer string
  procedure write (l : inout line; value : in @; justified : in side := right; field : in width := 0);
@E
  procedure write (l : inout line; value : in real; justified : in side := right; field : in width := 0; digits : in natural := 0);
  procedure write (l : inout line; value : in time; justified : in side := right; field : in width := 0; unit : in time := ns);
  procedure hread (l : inout line; value : out bit_vector; good : out boolean);
  procedure hread (l : inout line; value : out bit_vector);
  procedure oread (l : inout line; value : out bit_vector; good : out boolean);
  procedure oread (l : inout line; value : out bit_vector);
  procedure bread (l : inout line; value : out bit_vector; good : out boolean);
  procedure bread (l : inout line; value : out bit_vector);
  procedure hwrite (l : inout line; value : in bit_vector; justified : in side := right; field : in width := 0);
  procedure owrite (l : inout line; value : in bit_vector; justified : in side := right; field : in width := 0);
  procedure bwrite (l : inout line; value : in bit_vector; justified : in side := right; field : in width := 0);
  procedure swrite (l : inout line; value : in string; justified : in side := right; field : in width := 0);
end package;
