-- IEEE 1076-2008 clause 8.7: an external name leads to a signal that is built before it
entity t is end;
architecture a of t is
begin
  process
  begin
    report bit'image(<< signal .t.u.inner : bit >>); --! undeclared
    wait;
  end process;
end;
