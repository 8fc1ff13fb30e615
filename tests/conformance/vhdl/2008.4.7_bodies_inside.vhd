-- IEEE 1076-2008 clause 4.7: a subprogram of a package inside has a body too
entity t is end;
architecture a of t is
  package counts is
    function twice (x : integer) return integer; --! no-body
  end package;
begin
end;
