// IEEE 1364-2005 clause 3.9, 4.8, 5.1.1: real numbers, and their way to vectors and back
module t;
  real a, b; integer i; reg [7:0] r; time tm; realtime rt; real arr [0:2];
  initial begin
    a = 1.5; b = -2.5; i = a; $display("%0d", i); i = b; $display("%0d", i); i = 2.49; $display("%0d", i);
    r = 255.6; $display("%0d", r); a = 7; a = a / 2; $display("%g", a); a = 7 / 2; $display("%g", a); a = 7 / 2.0; $display("%g", a);
    $display("%b %b %b", a > 3, a == 3.5, a && 0); $display("%0d %0d", $rtoi(3.99), $rtoi(-3.99)); $display("%g", $itor(7) / 2);
    a = 1.0e3; $display("%g %f %e", a, a, a); b = 1_000.5; $display("%g", b); $display("%g", 2.0 ** 0.5);
    $display("%h", $realtobits(1.0)); $display("%g", $bitstoreal(64'hc000000000000000));
    i = 10; a = i * 1.5 + 1; $display("%g", a); a = 8'shff; $display("%g", a); a = 8'hff; $display("%g", a); a = 4'b1x01; $display("%g", a);
    arr[1] = 2.25; arr[2] = arr[1] * 2; $display("%g %g %g", arr[0], arr[1], arr[2]);
    $display("%0.3f %0.3f %0.3f", $sqrt(2.0), $ln(10), $pow(2, 0.5)); $display("%g", 1 ? 1 : 2.5); $display("%0d", 3.5 + 1);
    #2.6 $display("%0d %g", $time, $realtime); #0.5 $display("%g", $realtime); if (0.5) $display("true"); if (!0.0) $display("not");
  end
endmodule
//> 2
//> -3
//> 2
//> 0
//> 3.5
//> 3
//> 3.5
//> 1 1 0
//> 3 -3
//> 3.5
//> 1000 1000.000000 1.000000e+03
//> 1000.5
//> 1.41421
//> 3ff0000000000000
//> -2
//> 16
//> -1
//> 255
//> 9
//> 0 2.25 4.5
//> 1.414 2.303 1.414
//> 1
//> 5
//> 3 3
//> 4
//> true
//> not
