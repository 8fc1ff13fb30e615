-- IEEE 1076-2008 clause 8.7: what is named is of the class that the name says
entity sub is end;
architecture x of sub is
  constant limit : integer := 3;
begin
end;
entity t is end;
architecture a of t is
begin
  u : entity work.sub;
  process
  begin
    report integer'image(<< signal u.limit : integer >>); --! undeclared
    wait;
  end process;
end;
