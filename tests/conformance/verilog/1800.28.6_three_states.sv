// IEEE 1800-2017 clause 28.6: what a gate without permission lets through
module t;
  logic d, e; wire a, b, c;
  bufif1 (a, d, e); notif0 (b, d, e); nmos (c, d, e);
  initial begin
    {d, e} = 2'b11; #1 $display("%b%b%b", a, b, c);
    {d, e} = 2'b10; #1 $display("%b%b%b", a, b, c);
    {d, e} = 2'b01; #1 $display("%b%b%b", a, b, c);
  end
endmodule
//> 1z1
//> z0z
//> 0z0
