-- IEEE 1076-1993 clause 3.2.1: a signal of an unconstrained type
entity t is end;
architecture a of t is
  type list is array (natural range <>) of integer;
  signal s : list; --! unconstrained
begin
end;
