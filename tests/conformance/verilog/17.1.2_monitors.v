// IEEE 1364-2005 clause 17.1.2, 17.1.3: $strobe and $monitor print when the time step ends
module t;
  reg [3:0] a, b;
  initial begin
    $monitor("%0t monitor a=%0d b=%0d", $time, a, b);
    a = 1; b = 1; $display("display %0d", a); $strobe("strobe %0d", a); a = 2;
    #1 a <= 3; $display("display %0d", a); $strobe("strobe %0d", a);
    #1 a = 3;
    #1 b = 2; b = 1;
    #1 $monitoroff; a = 9; #1 $monitoron; #1 b = 7;
    #1 $monitor("only b=%0d", b); #1 b = 8; a = 0; #1 a = 1;
    #1 $finish;
  end
endmodule
//> display 1
//> strobe 2
//> 0 monitor a=2 b=1
//> display 2
//> strobe 3
//> 1 monitor a=3 b=1
//> 5 monitor a=9 b=1
//> 6 monitor a=9 b=7
//> only b=7
//> only b=8
