// IEEE 1364-2005 clause 3.7.1: everything up to a blank is the name, and the backslash is no part of it
module t;
  reg \a+b , \plain ;
  initial begin
    \a+b = 1; plain = 0;
    $display("%b%b", \a+b , \plain );
  end
endmodule
//> 10
