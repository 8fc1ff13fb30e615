-- IEEE 1076-1993 clause 1.1.1.1: given in the instance, or their defaults
entity m is
  generic (width : positive := 4; name : string := "none");
end;
architecture a of m is
begin
  process begin
    report integer'image(width) & name;
    wait;
  end process;
end;
entity t is end;
architecture a of t is
begin
  u : entity work.m generic map (width => 8);
end;
--> note: 8none
