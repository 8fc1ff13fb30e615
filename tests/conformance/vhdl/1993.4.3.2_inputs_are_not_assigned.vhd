-- IEEE 1076-1993 clause 4.3.2: a port of mode in
entity m is port (d : in bit); end;
architecture a of m is
begin
  d <= '0'; --! input
end;
